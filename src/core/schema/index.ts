export { longList } from "./longList";
