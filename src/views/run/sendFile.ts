/** Logs larger than this aren't kept as they were read, bytes: their trace is. */
const mostBytes = 64 * 1024 * 1024;

/**
 * Sends the log that a run was read from to be kept as it is, packed. It goes on while other pages are looked at; where
 * it doesn't arrive, the file is asked for when it is wanted.
 */
export async function sendFile(file: File, runId: string): Promise<void> {
  if (file.size > mostBytes || typeof CompressionStream === "undefined") return;
  try {
    const packed = await new Response(file.stream().pipeThrough(new CompressionStream("gzip"))).blob();
    await fetch(`/api/v1/runs/${runId}/file?${new URLSearchParams({ name: file.name.slice(0, 255) })}`, {
      method: "PUT",
      headers: { "content-type": "application/octet-stream" },
      body: packed,
    });
  } catch {
    // The run itself is kept.
  }
}

/** The log that a run was read from, unpacked; null where it wasn't kept. */
export async function fetchFile(runId: string, name: string): Promise<File | null> {
  const response = await fetch(`/api/v1/runs/${runId}/file`).catch(() => null);
  if (!response?.ok || !response.body) return null;
  const bytes = await new Response(response.body.pipeThrough(new DecompressionStream("gzip"))).blob();
  return new File([bytes], name);
}
