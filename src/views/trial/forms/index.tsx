import type { ComponentType } from "react";
import { CompareForm } from "./CompareForm";
import { ClocksForm } from "./ClocksForm";
import { HeatForm } from "./HeatForm";
import { MemoryForm } from "./MemoryForm";
import { PowerForm } from "./PowerForm";
import { RateForm } from "./RateForm";
import { ResolutionForm } from "./ResolutionForm";
import { ScreeningForm } from "./ScreeningForm";
import { UsualForm } from "./UsualForm";
import type { FormProps } from "./parts";

/** Forms of kinds that have choices to make; any other begins from its usual plan. */
const forms: Record<string, ComponentType<FormProps>> = {
  compare: CompareForm,
  screen: ScreeningForm,
  resolution: ResolutionForm,
  power: PowerForm,
  heat: HeatForm,
  clocks: ClocksForm,
  memory: MemoryForm,
  rate: RateForm,
};

export function PlanForm({ kind, ...props }: FormProps & { kind: string }) {
  const Form = forms[kind];
  return Form ? <Form {...props} /> : <UsualForm kind={kind} {...props} />;
}
