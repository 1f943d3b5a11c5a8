export { adviseReading as advise } from "../../sweeping";
