export { besideInRecipe, makeRecipe, recipeJsonSchema, recipeSchema, withLines, type Recipe } from "./recipe";
export { mostDescription, recipeHtml, recipeMarkdown, recipeText } from "./render";
