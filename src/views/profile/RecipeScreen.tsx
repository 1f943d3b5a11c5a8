"use client";
import Link from "next/link";
import { toast } from "sonner";
import { recipeHtml, recipeMarkdown, recipeText, type Recipe } from "@/core/recipe";
import { Button, Keys, buttonLook, download, fileNameOf } from "@/ui";

/** A recipe as it will be read elsewhere, and the forms it can be taken along in. */
export function RecipeScreen({ recipe, back }: { recipe: Recipe; back: string }) {
  const forms = [
    { key: "p", shown: "P", name: "Page", ending: "html", type: "text/html", make: recipeHtml },
    { key: "m", shown: "M", name: "Markdown", ending: "md", type: "text/markdown", make: recipeMarkdown },
    {
      key: "j",
      shown: "J",
      name: "JSON",
      ending: "json",
      type: "application/json",
      make: (of: Recipe) => `${JSON.stringify(of, null, 2)}\n`,
    },
    {
      key: "t",
      shown: "T",
      name: "Text for a description",
      ending: "txt",
      type: "text/plain",
      make: recipeText,
    },
  ];
  const save = ({ ending, type, make }: (typeof forms)[number]) =>
    download(`${fileNameOf(recipe.title.name)}.${ending}`, make(recipe), type);
  const copy = () =>
    void navigator.clipboard.writeText(recipeText(recipe)).then(
      () => toast("The text is on the clipboard."),
      () => toast.error("The browser refused the clipboard: save the text instead."),
    );
  return (
    <div className="mx-auto flex h-[calc(100dvh-44px)] max-w-6xl flex-col p-5">
      <Keys
        actions={[
          ...forms.map((form) => ({
            keys: form.key,
            shown: form.shown,
            label: `save as ${form.name.toLowerCase()}`,
            run: () => save(form),
          })),
          { keys: "c", shown: "C", label: "copy the text", run: copy },
        ]}
      />
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-xl font-semibold [overflow-wrap:anywhere]" dir="auto">
          Recipe: {recipe.title.name}
        </h1>
        <div className="ml-auto flex flex-wrap gap-2">
          {forms.map((form, at) => (
            <Button
              key={form.ending}
              look={at === 0 ? "lit" : "plain"}
              hint={form.shown}
              onClick={() => save(form)}
            >
              {form.name}
            </Button>
          ))}
          <Button hint="C" onClick={copy}>
            Copy
          </Button>
          <Link href={back} className={buttonLook("quiet")}>
            Back
          </Link>
        </div>
      </header>
      <p className="mb-2 text-[13px] text-soft">
        As others will read it: one page of its own, without the rig&apos;s name, notes or people. Look it over
        before you hand it on.
      </p>
      <iframe
        title="The recipe as a page"
        sandbox=""
        srcDoc={recipeHtml(recipe)}
        className="min-h-0 flex-1 rounded-(--radius-panel) border border-line bg-panel"
      />
    </div>
  );
}
