import type { peopleEndpoints } from "@/contract/people";
import type { Handlers } from "@/server/request/request";
import {
  addLink,
  addProgram,
  changePassphrase,
  endSession,
  removePerson,
  revokeLink,
  revokeProgram,
  signIn,
  signOut,
  viewPeople,
} from "./people";

export const peopleHandlers: Handlers<Exclude<keyof typeof peopleEndpoints, "events">> = {
  signIn: async ({ caller, agent, body, setCookie }) => {
    const { name, cookie } = await signIn(body, { ...caller, agent });
    setCookie(cookie);
    return { name };
  },
  signOut: async ({ caller, setCookie }) => setCookie((await signOut(caller)).cookie),
  endSession: async ({ actor, id }) => endSession(actor, id),
  changePassphrase: async ({ caller, body }) => changePassphrase(caller, body),
  viewPeople: async () => viewPeople(),
  removePerson: async ({ actor, id }) => removePerson(actor, id),
  addProgram: async ({ actor, body }) => addProgram(actor, body),
  revokeProgram: async ({ actor, id }) => revokeProgram(actor, id),
  addLink: async ({ actor, body }) => addLink(actor, body),
  revokeLink: async ({ actor, id }) => revokeLink(actor, id),
};
