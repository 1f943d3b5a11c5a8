"use client";
import { Search } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useRef } from "react";
import type { JobsView } from "@/core/records";
import { EmptyPanel, Input, KeyHint, Keys, buttonLook, say } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** All jobs, the last worked on first. */
export function JobsScreen({ rows, total, search, next }: JobsView) {
  const router = useRouter();
  const field = useRef<HTMLInputElement>(null);
  const to = (asked: string, cursor = "") =>
    `/jobs?${new URLSearchParams({ ...(asked ? { search: asked } : {}), ...(cursor ? { cursor } : {}) })}`;
  return (
    <div className="mx-auto max-w-6xl p-5">
      <Keys
        actions={[
          { keys: "n", shown: "N", label: "new job", run: () => router.push("/jobs/new") },
          { keys: "/", shown: "/", label: "search", run: () => field.current?.focus() },
        ]}
      />
      <header className="mb-4 flex items-center gap-4">
        <h1 className="text-xl font-semibold">Jobs</h1>
        <form
          className="relative w-72"
          onSubmit={(event) => {
            event.preventDefault();
            router.push(to(field.current?.value ?? ""));
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
        <span className="text-[13px] text-soft">{say.count(total, "job")}</span>
        <Link href="/jobs/new" className={`${buttonLook("lit")} ml-auto`}>
          New job <KeyHint>N</KeyHint>
        </Link>
      </header>
      {rows.length === 0 ? (
        <EmptyPanel
          title={search ? `No job matches “${search}”.` : "No job yet."}
          action={
            <Link href={search ? "/jobs" : "/jobs/new"} className={buttonLook("lit")}>
              {search ? "Show all jobs" : "Open the first"}
            </Link>
          }
        >
          A job tunes one title on one rig with one engine, towards an aim.
        </EmptyPanel>
      ) : (
        <table className="w-full text-left">
          <thead className="text-[12px] text-soft">
            <tr>
              {["Verdict", "Title", "Rig", "Engine", "Aim", "Average", "Runs", "Last run"].map((name) => (
                <th key={name} className="px-2 py-1.5 font-normal">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="divide-y divide-line">
            {rows.map((row) => (
              <tr key={row.id} className="hover:bg-panel">
                <td className="px-2 py-2">
                  <VerdictLamp grade={row.grade} />
                </td>
                <td className="px-2">
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
                <td className="px-2 text-soft">{row.lastRunAt ? say.ago(row.lastRunAt) : "none yet"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {next && (
        <nav aria-label="Pages" className="mt-4 flex items-center justify-center gap-4 text-[13px]">
          <Link href={to(search)} className={buttonLook("quiet")}>
            Newest
          </Link>
          <Link href={to(search, next)} className={buttonLook()}>
            Older
          </Link>
        </nav>
      )}
    </div>
  );
}
