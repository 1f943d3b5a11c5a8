"use client";
import { useQuery } from "@tanstack/react-query";
import { call } from "@/contract/client";
import { ProblemPanel, TableFrame, say } from "@/ui";

/** What somebody else published, fetched when it is looked at. */
export function Other({ id }: { id: string }) {
  const { data: sent } = useQuery({ queryKey: ["other", id], queryFn: async () => call("viewOther", { id }) });
  if (!sent) return <p className="mt-3 text-[13px] text-soft">Fetching it …</p>;
  if (!sent.ok) return <ProblemPanel title={sent.refusal.title} fix={sent.refusal.fix} />;
  const { publication, rowsInAll } = sent.answer;
  return (
    <div className="mt-3 grid gap-3 text-[13px]">
      {publication.said.map((sentence, at) => (
        <p key={at} dir="auto" className="[overflow-wrap:anywhere]">
          {sentence}
        </p>
      ))}
      {publication.tables.map(({ name, columns, rows }, nr) => {
        const inAll = rowsInAll[nr] ?? rows.length;
        return (
          <div key={nr}>
            <TableFrame name={`${publication.name}, ${name}`}>
              <table aria-label={name} className="w-full text-left">
                <thead className="text-[12px] text-soft">
                  <tr>
                    {columns.map((column, at) => (
                      <th key={at} className="px-2 py-1 font-normal" dir="auto">
                        {column}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody className="divide-y divide-line">
                  {rows.map((row, at) => (
                    <tr key={at}>
                      {row.map((cell, column) => (
                        <td key={column} className="min-w-20 px-2 py-1 [overflow-wrap:anywhere]" dir="auto">
                          {cell}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </TableFrame>
            {inAll > rows.length && (
              <p className="mt-1 text-[12px] text-soft">
                {rows.length} of {say.count(inAll, "row")}; the rest is in the file that it came from.
              </p>
            )}
          </div>
        );
      })}
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 text-[12px]">
        {publication.conditions.map(({ name, value }, at) => (
          <div key={at} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd className="[overflow-wrap:anywhere]">{value}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
