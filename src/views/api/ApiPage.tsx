import type { EndpointPage } from "@/contract";
import { Panel } from "@/ui";

/** The application's endpoints, to be read by people who write programs for it. */
export function ApiPage({ endpoints }: { endpoints: readonly EndpointPage[] }) {
  const groups = [...new Set(endpoints.map(({ group }) => group))];
  return (
    <div className="mx-auto grid max-w-5xl gap-5 p-5">
      <header>
        <h1 className="text-xl font-semibold">Endpoints</h1>
        <p className="mt-1 max-w-prose text-soft">
          Everything the pages do goes through these, under <code className="figure">/api/v1</code>, as JSON
          unless said otherwise. The same in a form for programs:{" "}
          <a className="underline decoration-line underline-offset-4" href="/api/v1/openapi.json">
            OpenAPI 3.1
          </a>
          .
        </p>
        <ul className="mt-2 max-w-prose list-disc space-y-1 pl-5 text-[13px] text-soft">
          <li>An edit says which version it saw by If-Match; a stale one is refused with both versions.</li>
          <li>What makes something new takes an Idempotency-Key: trying again with it makes nothing twice.</li>
          <li>Sentences come as a code with figures, and their words beside them.</li>
          <li>A refusal says what is wrong, what to do, and which field (RFC 9457).</li>
        </ul>
      </header>
      {groups.map((group) => (
        <Panel key={group} title={group}>
          <ul className="divide-y divide-line">
            {endpoints
              .filter((endpoint) => endpoint.group === group)
              .map((endpoint) => (
                <EndpointItem key={endpoint.id} {...endpoint} />
              ))}
          </ul>
        </Panel>
      ))}
    </div>
  );
}

function EndpointItem({
  method,
  path,
  summary,
  edits,
  creates,
  refusals,
  takes,
  query,
  body,
  answer,
}: EndpointPage) {
  const asks = [
    edits === "required" && "If-Match",
    edits === "optional" && "If-Match where known",
    creates && "Idempotency-Key",
    path.includes("{") && "an id",
  ].filter(Boolean);
  return (
    <li className="py-2">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="figure w-16 text-[13px] font-semibold">{method}</span>
        <code className="figure">{path}</code>
        <span className="text-soft">{summary}</span>
      </p>
      <p className="pl-19 text-[12px] text-soft">
        {[
          asks.length > 0 && `takes ${asks.join(", ")}`,
          query.length > 0 && `asks ${query.join(", ")}`,
          takes === "bytes" && "a body of bytes",
          refusals.length > 0 && `may refuse with ${refusals.join(", ")}`,
        ]
          .filter(Boolean)
          .join("; ")}
      </p>
      {(body || answer) && (
        <details className="pl-19 text-[12px]">
          <summary className="min-h-7 cursor-pointer py-1 text-soft">Shapes</summary>
          {body && <Shape title="Body" text={body} />}
          {answer && <Shape title="Answer" text={answer} />}
        </details>
      )}
    </li>
  );
}

const Shape = ({ title, text }: { title: string; text: string }) => (
  <figure className="mt-1">
    <figcaption className="text-soft">{title}</figcaption>
    <pre tabIndex={0} className="figure max-h-72 overflow-auto rounded border border-line bg-ground p-2">
      {text}
    </pre>
  </figure>
);
