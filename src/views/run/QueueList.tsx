"use client";
import { DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { clsx } from "clsx";
import { GripVertical, X } from "lucide-react";
import { ChoiceField, say } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import type { QueuedLog } from "./useLogQueue";

interface Shown {
  logs: QueuedLog[];
  /** Each log's arm, and the arms there are; null where the runs belong to no trial. */
  arms: {
    names: string[];
    of: (id: string) => number | null;
    ticked: ReadonlySet<string>;
    onTick: (ticked: ReadonlySet<string>) => void;
  } | null;
  twice: ReadonlySet<string>;
  selected: string | null;
  onSelect: (id: string) => void;
  onArm: (id: string, arm: number) => void;
  onMove: (id: string, to: number) => void;
  onRemove: (id: string) => void;
}

/**
 * Logs in running order, a row each: dragged, or moved by keys, to another place; the chosen one is shown under
 * them.
 */
export function QueueList(shown: Shown) {
  const { logs, onMove } = shown;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      id="queue"
      sensors={sensors}
      onDragEnd={({ active, over }) =>
        over &&
        active.id !== over.id &&
        onMove(
          String(active.id),
          logs.findIndex(({ id }) => id === over.id),
        )
      }
    >
      <SortableContext items={logs.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <ol aria-label="Logs in running order" className="divide-y divide-line rounded-md border border-line">
          {logs.map((log, at) => (
            <Row key={log.id} log={log} at={at} {...shown} />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function Row({
  log,
  at,
  arms,
  twice,
  selected,
  onSelect,
  onArm,
  onRemove,
}: Shown & { log: QueuedLog; at: number }) {
  const { setNodeRef, attributes, listeners, transform, transition } = useSortable({ id: log.id });
  const { state, file } = log;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={clsx(
        "flex flex-wrap items-center gap-x-3 gap-y-1 bg-panel px-2 py-1.5 text-[13px]",
        selected === log.id && "bg-raised",
      )}
    >
      {arms && (
        <input
          type="checkbox"
          aria-label={`Tick ${file.name}`}
          checked={arms.ticked.has(log.id)}
          onChange={() => {
            const now = new Set(arms.ticked);
            if (!now.delete(log.id)) now.add(log.id);
            arms.onTick(now);
          }}
        />
      )}
      <button
        type="button"
        aria-label={`Move ${file.name}, at place ${at + 1}`}
        className="grid min-h-7 w-6 cursor-grab touch-none place-items-center rounded text-soft hover:bg-raised"
        {...attributes}
        {...listeners}
      >
        <GripVertical size={14} aria-hidden />
      </button>
      <button
        type="button"
        aria-pressed={selected === log.id}
        onClick={() => onSelect(log.id)}
        className="flex min-w-0 flex-1 items-center gap-3 text-left"
      >
        <span className="figure w-5 text-right text-soft">{at + 1}</span>
        <span className="w-24">
          {state.step === "read" ? (
            <VerdictLamp grade={state.preview.verdict.grade} between={state.preview.verdict.between} />
          ) : (
            <span className={state.step === "refused" ? "text-caution" : "text-soft"}>
              {state.step === "reading" ? `${(100 * state.share).toFixed(0)} % read` : state.step}
            </span>
          )}
        </span>
        <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">{file.name}</span>
        {state.step === "read" && (
          <span className="figure whitespace-nowrap">
            {say.number(state.preview.averageFps)} fps{" "}
            <span className="text-soft">{say.clock(state.preview.durationMs)}</span>
          </span>
        )}
      </button>
      {arms && (
        <ChoiceField
          quiet
          label={`Arm of ${file.name}`}
          value={String(arms.of(log.id) ?? "")}
          placeholder="no arm yet"
          options={arms.names.map((name, arm) => ({ value: String(arm), label: name }))}
          onChange={(arm) => onArm(log.id, Number(arm))}
        />
      )}
      {twice.has(log.id) && !log.again && (
        <span className="text-caution">the same file stands before it: left out</span>
      )}
      {log.refusal && <span className="text-caution">{log.refusal.title}</span>}
      <button
        type="button"
        aria-label={`Put ${file.name} away`}
        onClick={() => onRemove(log.id)}
        className="grid min-h-7 w-7 place-items-center rounded text-soft hover:bg-raised hover:text-text"
      >
        <X size={14} aria-hidden />
      </button>
    </li>
  );
}
