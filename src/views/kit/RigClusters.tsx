import { Plus, X } from "lucide-react";
import { useFieldArray, type UseFormReturn } from "react-hook-form";
import type { NewRig } from "@/core/kit";
import { Button, Panel } from "@/ui";
import { figureFields } from "./figureFields";

/** Not said yet: the schema asks for it. */
const unsaid = null as unknown as number;

/** The processor of a rig, a row a cluster of cores. */
export function RigClusters({ form }: { form: UseFormReturn<NewRig> }) {
  const { control, formState } = form;
  const clusters = useFieldArray({ control, name: "spec.processor.clusters" });
  const at = formState.errors.spec;
  const figure = figureFields(form);
  return (
    <Panel
      title="Processor, a row a cluster"
      aside={
        <Button onClick={() => clusters.append({ cores: unsaid, baseGhz: unsaid, boostGhz: unsaid })}>
          <Plus size={14} aria-hidden />
          Cluster
        </Button>
      }
    >
      {clusters.fields.map((row, index) => (
        <div key={row.id} className="mb-2 grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-3">
          {figure(
            `spec.processor.clusters.${index}.cores`,
            "Cores",
            undefined,
            at?.processor?.clusters?.[index]?.cores?.message,
          )}
          {figure(
            `spec.processor.clusters.${index}.baseGhz`,
            "Base clock",
            "GHz",
            at?.processor?.clusters?.[index]?.baseGhz?.message,
          )}
          {figure(
            `spec.processor.clusters.${index}.boostGhz`,
            "Boost clock",
            "GHz",
            at?.processor?.clusters?.[index]?.boostGhz?.message,
          )}
          <Button
            look="quiet"
            aria-label={`Remove cluster ${index + 1}`}
            onClick={() => clusters.remove(index)}
          >
            <X size={14} aria-hidden />
          </Button>
        </div>
      ))}
    </Panel>
  );
}
