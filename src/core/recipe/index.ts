export { makeRecipe, recipeJsonSchema, recipeSchema, type Recipe } from "./recipe";
export { mostDescription, recipeHtml, recipeMarkdown, recipeText } from "./render";
