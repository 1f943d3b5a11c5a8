"use client";
import { Search } from "lucide-react";
import { useRouter } from "next/navigation";
import { Fragment, useRef } from "react";
import { call } from "@/contract/client";
import { jobOrders, jobStates } from "@/contract/lists";
import type { JobsView } from "@/contract";
import {
  Button,
  ChoiceField,
  EmptyPanel,
  Input,
  KeyHint,
  Keys,
  TableFrame,
  buttonLook,
  say,
  When,
  toast,
  Link,
} from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

const all = "all jobs";
const orderNames: Record<(typeof jobOrders)[number], string> = {
  worked: "last worked on",
  title: "by title",
  rig: "by rig",
  opened: "last opened",
};

/** All jobs, the last worked on first unless sorted otherwise; those left out on demand. */
export function JobsPage({ rows, total, search, filter, sort, next }: JobsView) {
  const router = useRouter();
  const field = useRef<HTMLInputElement>(null);
  const to = (asked: Partial<Record<"search" | "filter" | "sort" | "cursor", string>>) =>
    `/jobs?${new URLSearchParams(
      Object.entries({ search, filter, sort: sort === "worked" ? "" : sort, ...asked }).filter(
        ([, value]) => value !== "",
      ),
    )}`;
  const takeBack = async (id: string, version: number) => {
    const sent = await call("changeJob", { id, body: { deleted: false }, saw: version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
  };
  return (
    <div className="mx-auto max-w-6xl p-5">
      <Keys
        actions={[
          { keys: "n", shown: "N", label: "new job", run: () => router.push("/jobs/new") },
          { keys: "/", shown: "/", label: "search", run: () => field.current?.focus() },
        ]}
      />
      <header className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-xl font-semibold">Jobs</h1>
        <form
          className="relative w-64 max-sm:w-full"
          onSubmit={(event) => {
            event.preventDefault();
            router.push(to({ search: field.current?.value ?? "" }));
          }}
        >
          <Search size={15} aria-hidden className="absolute left-2.5 top-2.5 text-soft" />
          <Input
            ref={field}
            defaultValue={search}
            placeholder="title, rig, system or engine"
            aria-label="Search jobs"
            className="pl-8"
          />
        </form>
        <ChoiceField
          quiet
          label="Which jobs"
          value={filter || all}
          options={[all, ...jobStates].map((value) => ({ value, label: value }))}
          onChange={(value) => router.push(to({ filter: value === all ? "" : value }))}
        />
        <ChoiceField
          quiet
          label="Sorted by"
          value={sort}
          options={jobOrders.map((value) => ({ value, label: orderNames[value] }))}
          onChange={(value) => router.push(to({ sort: value === "worked" ? "" : value }))}
        />
        <span className="text-[13px] text-soft">{say.count(total, "job")}</span>
        <Link href="/jobs/new" className={`${buttonLook("lit")} ml-auto`}>
          New job <KeyHint>N</KeyHint>
        </Link>
      </header>
      {rows.length === 0 ? (
        <EmptyPanel
          title={
            search
              ? `No job matches “${search}”.`
              : filter
                ? `No job is ${filter === "left out" ? "left out" : filter}.`
                : "No job yet."
          }
          action={
            <Link href={search || filter ? "/jobs" : "/jobs/new"} className={buttonLook("lit")}>
              {search || filter ? "Show all jobs" : "Open the first"}
            </Link>
          }
        >
          A job tunes one title on one rig with one engine, towards an aim.
        </EmptyPanel>
      ) : (
        <TableFrame name="Jobs" cards>
          <table aria-label="Jobs" className="w-full text-left">
            <thead className="text-[12px] text-soft">
              <tr>
                {["Verdict", "Title", "Rig", "Engine", "Aim", "Average", "Runs", "Last run", "Opened"].map(
                  (name) => (
                    <th key={name} className="px-2 py-1.5 font-normal">
                      {name}
                    </th>
                  ),
                )}
              </tr>
            </thead>
            <tbody className="divide-y divide-line">
              {rows.map((row, at) => (
                <Fragment key={row.id}>
                  {sort === "title" && rows[at - 1]?.titleId !== row.titleId && (
                    <tr>
                      <th
                        colSpan={9}
                        scope="rowgroup"
                        className="px-2 pb-1 pt-4 text-[13px] font-semibold"
                        dir="auto"
                      >
                        {row.title}
                      </th>
                    </tr>
                  )}
                  <tr className="hover:bg-panel">
                    <td className="px-2 py-2">
                      <VerdictLamp grade={row.grade} between={row.between} ran={row.runs > 0} />
                    </td>
                    <td className="px-2" dir="auto">
                      <Link
                        href={`/jobs/${row.id}`}
                        className="underline decoration-line underline-offset-4 hover:decoration-text"
                      >
                        {row.title}
                      </Link>{" "}
                      <span className="text-[12px] text-soft">
                        {row.system}, {row.hardness}
                      </span>
                    </td>
                    <td className="px-2">{row.rig}</td>
                    <td className="px-2">
                      {row.engine} <span className="figure text-[12px] text-soft">{row.build}</span>
                    </td>
                    <td className="px-2">{row.aim}</td>
                    <td className="figure px-2">
                      {row.averageFps === null ? "–" : `${say.number(row.averageFps)} fps`}
                    </td>
                    <td className="figure px-2">{row.runs}</td>
                    <td className="whitespace-nowrap px-2 text-soft">
                      {row.lastRunAt ? <When at={row.lastRunAt} as="ago" /> : "none yet"}
                    </td>
                    <td className="whitespace-nowrap px-2 text-[12px] text-soft">
                      <When at={row.createdAt} />
                      {row.closedAt && ", closed"}
                      {row.deletedAt && (
                        <Button look="quiet" onClick={() => void takeBack(row.id, row.version)}>
                          Take back
                        </Button>
                      )}
                    </td>
                  </tr>
                </Fragment>
              ))}
            </tbody>
          </table>
        </TableFrame>
      )}
      {next && (
        <nav aria-label="Pages" className="mt-4 flex items-center justify-center gap-4 text-[13px]">
          <Link href={to({ cursor: "" })} className={buttonLook("quiet")}>
            From the beginning
          </Link>
          <Link href={to({ cursor: next })} className={buttonLook()}>
            Further
          </Link>
        </nav>
      )}
    </div>
  );
}
