"use client";
import { useRouter } from "next/navigation";
import type { BuildView } from "@/core/records";
import { buildWords } from "@/core/words";
import type { Grade } from "@/core/verdict";
import { ChoiceField, Panel, TableFrame, TableHead, say, Link } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

const isGrade = (grade: string | null) => grade as Grade | null;

/** What a build fixed and broke against the one before it, by the runs that there are. */
export function BuildPage({ view }: { view: BuildView }) {
  const router = useRouter();
  const { engine, version, branch, before, builds, titles, stale, date } = view;
  const both = titles.filter(({ change }) => change !== "one side only");
  return (
    <div className="mx-auto grid max-w-5xl gap-4 p-5">
      <header className="flex flex-wrap items-center gap-4">
        <div>
          <h1 className="text-xl font-semibold [overflow-wrap:anywhere]" dir="auto">
            {engine} {version}
          </h1>
          <p className="text-[13px] text-soft">
            {branch}
            {date && `, of ${date}`}
            {before ? `; against ${before.version}, the build before it` : "; the first build there is"}
          </p>
        </div>
        <div className="ml-auto w-40">
          <ChoiceField
            label="Build"
            value={view.id}
            options={builds.map(({ id, version: name }) => ({ value: id, label: name }))}
            onChange={(id) => router.push(`/builds/${id}`)}
          />
        </div>
      </header>
      <Panel>
        {buildWords(view).map((sentence) => (
          <p key={sentence} className="text-[16px]">
            {sentence}
          </p>
        ))}
        <p className="mt-1 text-[12px] text-soft">
          By the newest run of either build and the faults noted in any: no comparison of rates.{" "}
          <Link href="/campaigns/new" className="underline decoration-line underline-offset-4">
            Plan a campaign
          </Link>{" "}
          to have them told apart.
        </p>
      </Panel>
      {both.length > 0 && (
        <Panel title="Titles run with both">
          <TableFrame name="Titles run with both">
            <table aria-label="Titles run with both" className="w-full text-left text-[13px]">
              <TableHead names={["Title", before?.version ?? "", version, "Change"]} />
              <tbody className="divide-y divide-line">
                {both.map((row) => (
                  <tr key={row.titleId + row.rig} className="align-top">
                    <td className="px-2 py-2 [overflow-wrap:anywhere]">
                      <Link
                        href={`/jobs/${row.jobId}`}
                        className="underline decoration-line underline-offset-4 hover:decoration-text"
                        dir="auto"
                      >
                        {row.title}
                      </Link>
                      <span className="block text-[12px] text-soft">on {row.rig}</span>
                    </td>
                    <td className="px-2 py-2">
                      <VerdictLamp grade={isGrade(row.from)} size={16} ran />
                    </td>
                    <td className="px-2 py-2">
                      <VerdictLamp grade={isGrade(row.to)} size={16} ran />
                    </td>
                    <td className="px-2 py-2 [overflow-wrap:anywhere]">
                      {row.change}
                      {[
                        ...row.gone.map((fault) => `gone: ${fault}`),
                        ...row.fresh.map((fault) => `new: ${fault}`),
                      ].map((fault) => (
                        <span key={fault} className="block text-[12px] text-soft">
                          {fault}
                        </span>
                      ))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </TableFrame>
        </Panel>
      )}
      {stale.length > 0 && (
        <Panel title="Profiles measured with another build">
          <ul className="text-[13px]">
            {stale.map(({ rigId, rig, values }) => (
              <li key={rigId}>
                <Link
                  href={`/profiles?${new URLSearchParams({ rig: rigId, engine: view.engineId, build: view.id })}`}
                  className="underline decoration-line underline-offset-4"
                >
                  {engine} on {rig}
                </Link>
                : {say.count(values, "value")}
              </li>
            ))}
          </ul>
        </Panel>
      )}
    </div>
  );
}
