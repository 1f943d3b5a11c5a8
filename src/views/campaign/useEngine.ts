import { useQuery } from "@tanstack/react-query";
import { call } from "@/contract/client";

/** An engine with its catalogue; nothing while none is named or it is on its way. */
export function useEngine(engineId: string | undefined) {
  const { data } = useQuery({
    queryKey: ["engine of an arm", engineId],
    enabled: engineId !== undefined,
    queryFn: async () => {
      const sent = await call("viewEngine", { id: engineId ?? "" });
      return sent.ok ? sent.answer : null;
    },
  });
  return data;
}
