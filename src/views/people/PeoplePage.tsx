"use client";
import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import { call, type Sent } from "@/contract/client";
import type { LinkRow, PeopleView, Rights } from "@/core/records";
import { Button, ChoiceField, Field, Input, Panel, RowsTable, When, toast } from "@/ui";
import { PassphraseField } from "./PassphraseField";

const rightsWords: Record<Rights, string> = {
  tunes: "reads and changes",
  runs: "reads, and brings runs in",
  reads: "reads",
  metrics: "the application's own figures only",
};
const linkWords = ({ what, name }: LinkRow) => (what === "board" ? "The board" : `${name || "gone"} (${what})`);

/** Who may come in: people and their sessions, programs with tokens, and links that only show. */
export function PeoplePage({ view }: { view: PeopleView }) {
  const router = useRouter();
  const [shown, setShown] = useState<{ what: string; secret: string } | null>(null);
  const done = async (sending: Promise<Sent<unknown>>, said: string) => {
    const sent = await sending;
    if (sent.ok) toast(said);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
  };
  const end = (label: string, name: string, act: () => void) => (
    <Button look="quiet" aria-label={`${label}: ${name}`} onClick={act}>
      {label}
    </Button>
  );
  return (
    <div className="grid gap-4">
      {!view.asked && (
        <Panel title="Only this machine">
          <p>
            The application answers this machine alone, so nobody has to sign in. To let others in, set a
            passphrase for each, then start it on the network:
          </p>
          <pre className="figure mt-2 overflow-x-auto rounded bg-ground p-2 text-[13px]">
            npm run passphrase -- NAME{"\n"}npm run demo -- --listen 0.0.0.0
          </pre>
          <p className="mt-2 text-[13px] text-soft">
            It then speaks HTTPS only. Open it to a network that you trust; a house that has rules for its
            network asks whoever keeps them first.
          </p>
        </Panel>
      )}
      {shown && (
        <div role="status" className="rounded-(--radius-panel) border border-lit bg-panel p-4">
          <p className="font-semibold">{shown.what}</p>
          <p className="figure my-2 text-[13px] [overflow-wrap:anywhere]">{shown.secret}</p>
          <div className="flex gap-2">
            <Button
              onClick={() =>
                void navigator.clipboard.writeText(shown.secret).then(
                  () => toast("It is on the clipboard."),
                  () => toast.error("The browser refused the clipboard: mark and copy it."),
                )
              }
            >
              Copy
            </Button>
            <Button look="quiet" onClick={() => setShown(null)}>
              Put away
            </Button>
          </div>
        </div>
      )}
      <Rows
        title="People"
        empty="Nobody has a passphrase yet."
        heads={["Name", "May", "Passphrase set", "Sessions", ""]}
        rows={view.people.map((person) => [
          person.name,
          rightsWords[person.may],
          <When key="set" at={person.changedAt} />,
          person.sessions,
          end(
            "Let in no more",
            person.name,
            () => void done(call("removePerson", { id: person.id }), `${person.name} is let in no more.`),
          ),
        ])}
      />
      <Rows
        title="Sessions"
        empty="Nobody is signed in."
        heads={["Name", "From", "With", "Since", "Last used", ""]}
        rows={view.sessions.map((session) => [
          session.name,
          session.address,
          session.agent.slice(0, 60),
          <When key="since" at={session.madeAt} />,
          <When key="used" at={session.seenAt} as="ago" />,
          end(
            "End",
            session.name,
            () => void done(call("endSession", { id: session.id }), "The session has ended."),
          ),
        ])}
      />
      {view.asked && <OwnPassphrase />}
      <Rows
        title="Programs"
        empty="No program has a token."
        heads={["Name", "May", "Made by", "Made", "Last used", ""]}
        rows={view.programs.map((program) => [
          program.name,
          program.rig === null ? rightsWords[program.may] : `brings runs of ${program.rig}, nothing else`,
          program.madeBy,
          <When key="made" at={program.madeAt} />,
          program.usedAt ? <When key="used" at={program.usedAt} as="ago" /> : "never",
          end(
            "Revoke",
            program.name,
            () => void done(call("revokeProgram", { id: program.id }), "The token opens nothing any more."),
          ),
        ])}
      >
        <NewProgram
          onMade={(name, token) => {
            setShown({ what: `The token of ${name}, shown this once:`, secret: token });
            router.refresh();
          }}
        />
      </Rows>
      <Rows
        title="Read-only links"
        empty="No link was given away. Make one for the board here, or under Publish for a device or a campaign, or at a job's recipe."
        heads={["Shows", "Names", "Notes", "Made by", "Made", "Last opened", ""]}
        rows={view.links.map((link) => [
          linkWords(link),
          link.names ? "shown" : "left out",
          link.notes ? "shown" : "left out",
          link.madeBy,
          <When key="made" at={link.madeAt} />,
          link.usedAt ? <When key="used" at={link.usedAt} as="ago" /> : "never",
          end(
            "Revoke",
            linkWords(link),
            () => void done(call("revokeLink", { id: link.id }), "The link shows nothing any more."),
          ),
        ])}
      >
        <Button
          onClick={() =>
            void call("addLink", { body: { what: "board", ofId: "", names: true, notes: false } }).then(
              (sent) => {
                if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
                setShown({
                  what: "A link to the board, shown this once:",
                  secret: `${window.location.origin}${sent.answer.path}`,
                });
                router.refresh();
              },
            )
          }
        >
          Link to the board
        </Button>
      </Rows>
    </div>
  );
}

function Rows({
  title,
  empty,
  heads,
  rows,
  children,
}: {
  title: string;
  empty: string;
  heads: string[];
  rows: ReactNode[][];
  children?: ReactNode;
}) {
  return (
    <Panel title={rows.length > 0 ? `${title} (${rows.length})` : title}>
      {rows.length === 0 ? (
        <p className="text-soft">{empty}</p>
      ) : (
        <RowsTable name={title} heads={heads} rows={rows} />
      )}
      {children && <div className="mt-3">{children}</div>}
    </Panel>
  );
}

function NewProgram({ onMade }: { onMade: (name: string, token: string) => void }) {
  const [name, setName] = useState("");
  const [may, setMay] = useState<Rights>("reads");
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void call("addProgram", { body: { name, may } }).then((sent) => {
          if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
          setName("");
          onMade(name, sent.answer.token);
        });
      }}
    >
      <Field label="Program">
        {(ids) => <Input {...ids} value={name} onChange={({ target }) => setName(target.value)} />}
      </Field>
      <div className="w-72">
        <ChoiceField
          label="What it may do"
          value={may}
          options={(Object.keys(rightsWords) as Rights[]).map((value) => ({
            value,
            label: rightsWords[value],
          }))}
          onChange={(value) => setMay(value as Rights)}
        />
      </div>
      <Button type="submit" disabled={name.trim() === ""}>
        Make a token
      </Button>
    </form>
  );
}

function OwnPassphrase() {
  const [passphrase, setPassphrase] = useState("");
  const [fresh, setFresh] = useState("");
  const [problem, setProblem] = useState("");
  return (
    <Panel title="Your passphrase">
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void call("changePassphrase", { body: { passphrase, fresh } }).then((sent) => {
            if (sent.ok) window.location.assign("/sign-in");
            else setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
          });
        }}
      >
        <PassphraseField
          label="The one there is"
          keeper="current-password"
          value={passphrase}
          onChange={setPassphrase}
        />
        <PassphraseField label="The new one" keeper="new-password" value={fresh} onChange={setFresh} />
        <Button type="submit" disabled={passphrase === "" || fresh === ""}>
          Change, and end every session
        </Button>
      </form>
      {problem && (
        <p role="alert" className="mt-2 text-[13px] text-caution">
          {problem}
        </p>
      )}
    </Panel>
  );
}
