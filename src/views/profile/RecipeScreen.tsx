"use client";
import { toast } from "sonner";
import { recipeHtml, recipeMarkdown, recipeText, type Recipe } from "@/core/recipe";
import { HandedOn, useLink } from "@/views/publish";

/** A recipe as it will be read elsewhere, and the forms it can be taken along in. */
export function RecipeScreen({ recipe, back, jobId }: { recipe: Recipe; back: string; jobId?: string }) {
  const link = useLink({ what: "recipe", ofId: jobId ?? "", names: false, notes: false });
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
    />
  );
}
