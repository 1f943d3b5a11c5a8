import { kindOf } from "@/core/trial";
import { PlanFrame, type FormProps } from "./parts";

/** Plans a kind of trial that has no form of its own: the plan it begins from where nothing was chosen. */
export function UsualForm({ kind, ...props }: FormProps & { kind: string }) {
  const draft = kindOf(kind).usual(props.view);
  return (
    <PlanFrame
      {...props}
      draft={draft}
      missing={draft ? undefined : "This rig and engine have nothing to try here."}
    />
  );
}
