import { expose } from "comlink";
import { type GroupsWanted, type Proposal, proposeGroups } from "#core/groups";

const worker = {
  propose(wanted: GroupsWanted): Proposal {
    return proposeGroups(wanted);
  },
};
export type GroupsWorker = typeof worker;
expose(worker);
