"use client";
import { useEffect, useState } from "react";
import { call } from "@/contract/client";
import { Button, Field, Input } from "@/ui";
import { PassphraseField } from "./PassphraseField";

/** The way in, where the application answers more than its own machine. */
export function SignInPage({ back }: { back: string }) {
  const [name, setName] = useState("");
  const [passphrase, setPassphrase] = useState("");
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);
  const [ready, setReady] = useState(false);
  useEffect(() => setReady(true), []);
  return (
    <form
      data-ready={ready || undefined}
      className="mx-auto mt-[14vh] grid w-[min(380px,92vw)] gap-4 rounded-(--radius-panel) border border-line bg-panel p-6"
      onSubmit={(event) => {
        event.preventDefault();
        setBusy(true);
        void call("signIn", { body: { name, passphrase } }).then((sent) => {
          setBusy(false);
          // A page made for nobody isn't kept: the whole is asked for anew.
          if (sent.ok) window.location.assign(back);
          else setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
        });
      }}
    >
      <h1 className="text-xl font-semibold">Velvet Lamp</h1>
      <p className="text-[13px] text-soft">This bench is shared. Say who you are.</p>
      <Field label="Name">
        {(ids) => (
          <Input
            {...ids}
            autoComplete="username"
            autoFocus
            value={name}
            onChange={({ target }) => setName(target.value)}
          />
        )}
      </Field>
      <PassphraseField
        label="Passphrase"
        keeper="current-password"
        value={passphrase}
        onChange={setPassphrase}
      />
      {problem && (
        <p role="alert" className="text-[13px] text-caution">
          {problem}
        </p>
      )}
      <Button type="submit" look="lit" disabled={busy || name.trim() === "" || passphrase === ""}>
        {busy ? "Looking …" : "Sign in"}
      </Button>
      <p className="text-[12px] text-soft">
        A passphrase that was lost is set anew by whoever keeps the machine: npm run passphrase.
      </p>
    </form>
  );
}
