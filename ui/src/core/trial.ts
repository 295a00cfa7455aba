// The trial visit: an invented client to try a visit on. It lives in this page's memory only;
// a reload or leaving it ends it, and nothing of it is stored or sent.
import { beginLocal, forgetLocal, inventedVisit, type Practising } from "./localVisit";
import type { OpenedVisit } from "./openedVisit";

/** The visit, its client and who countersigns there. */
export const trial = {
  visit: "00000000-0000-7000-8000-00000000a001",
  client: "00000000-0000-7000-8000-00000000a002",
  supervisor: "00000000-0000-7000-8000-00000000a003",
};

/** Whether an id is the trial visit's or its client's. */
export const isTrial = (id: string) => id === trial.visit || id === trial.client;

export const forgetTrial = () => forgetLocal(trial.visit);

/** It says what it is about and nothing of before. */
function trialVisit(me: Practising): OpenedVisit {
  const supervisor = {
    id: trial.supervisor,
    name: "The supervisor",
    role: "therapist",
    licensed: true,
  } as const;
  const open = inventedVisit(me, {
    visit: trial.visit,
    client: { id: trial.client, given_name: "Ottilie", family_name: "Invented", age: 41 },
    reason: "Stiff neck on the right",
    role: me.role,
  });
  return {
    ...open,
    context: { ...open.context, roles: { ...open.context.roles, [supervisor.id]: "therapist" } },
    team: [...open.team, supervisor],
  };
}

beginLocal(trial.visit, { open: trialVisit, events: [] });
