"use client";
import { useRef, useState } from "react";
import { recipeHtml, recipeMarkdown, recipeText, withLines, type Recipe } from "@/core/recipe";
import { Button, FileInput, say, toast } from "@/ui";
import { useDrops } from "@/views/drop";
import { HandedOn, useShareLink } from "@/views/publish";
import { useConfigReader } from "./useConfigReader";

const configKinds = ["config"] as const;

/** A recipe as it will be read elsewhere, and the forms it can be taken along in. */
export function RecipePage({ recipe: made, back, jobId }: { recipe: Recipe; back: string; jobId?: string }) {
  const [recipe, setRecipe] = useState(made);
  const [told, setTold] = useState<string | null>(null);
  const worker = useConfigReader();
  const input = useRef<HTMLInputElement>(null);
  const line = async (file: File) => {
    if (!worker) return;
    const read = await worker.call.read(new Uint8Array(await file.arrayBuffer()), file.name, null);
    if (!read.ok) return setTold(`${file.name}: ${read.message}. The recipe stays as it was.`);
    const lined = withLines(recipe, file.name, read.entries);
    setRecipe(lined.recipe);
    setTold(
      lined.of === 0
        ? `No setting of this recipe stands in a file called ${file.name}.`
        : `${file.name}: ${lined.found} of ${say.count(lined.of, "setting")} found, each with its line.`,
    );
  };
  useDrops((files) => {
    for (const file of files.slice(0, 1)) void line(file);
  }, configKinds);
  const link = useShareLink({ what: "recipe", ofId: jobId ?? "", names: false, notes: false });
  const copy = () =>
    void navigator.clipboard.writeText(recipeText(recipe)).then(
      () => toast("The text is on the clipboard."),
      () => toast.error("The browser refused the clipboard: save the text instead."),
    );
  const page = recipeHtml(recipe);
  return (
    <HandedOn
      heading={`Recipe: ${recipe.title.name}`}
      name={recipe.title.name}
      note="As others will read it: one page of its own, without the rig's name, notes or people. Look it over before you hand it on."
      back={back}
      preview={page}
      actions={[
        { keys: "c", shown: "C", label: "copy the text", name: "Copy", run: copy },
        ...(jobId
          ? [{ keys: "l", shown: "L", label: "give away a read-only link", name: "Link", run: link }]
          : []),
      ]}
      forms={[
        { key: "P", name: "Page", ending: "html", type: "text/html", make: () => page },
        { key: "M", name: "Markdown", ending: "md", type: "text/markdown", make: () => recipeMarkdown(recipe) },
        {
          key: "J",
          name: "JSON",
          ending: "json",
          type: "application/json",
          make: () => `${JSON.stringify(recipe, null, 2)}\n`,
        },
        {
          key: "T",
          name: "Text for a description",
          ending: "txt",
          type: "text/plain",
          make: () => recipeText(recipe),
        },
      ]}
    >
      {recipe.settings.length > 0 && (
        <div className="mb-2 flex flex-wrap items-center gap-3 text-[13px] text-soft">
          <Button disabled={!worker} onClick={() => input.current?.click()}>
            Line numbers from a config file
          </Button>
          <span role="status" className="[overflow-wrap:anywhere]">
            {told ?? "Your own file, read on this machine: each setting gets the line it stands on."}
          </span>
          <FileInput ref={input} label="The engine's config file" onFile={(file) => void line(file)} />
        </div>
      )}
    </HandedOn>
  );
}
