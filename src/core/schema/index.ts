export { longList } from "./longList";
export { cursorOf, cursorSchema, keyset, momentCursorSchema } from "./cursor";
export { z } from "./z";
export { moment } from "./moment";
