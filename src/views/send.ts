/** What a refused request says, ready to show. */
export interface Refusal {
  title: string;
  fix: string;
  fields: Record<string, string>;
}

export type Sent<Answer> = { ok: true; answer: Answer } | { ok: false; refusal: Refusal };

/** Sends JSON to the application's own API; never throws. */
export async function send<Answer = unknown>(
  method: "POST" | "PUT" | "PATCH" | "DELETE",
  path: string,
  body?: unknown,
): Promise<Sent<Answer>> {
  try {
    const response = await fetch(`/api/v1/${path}`, {
      method,
      headers: { "content-type": "application/json" },
      body: body === undefined ? undefined : typeof body === "string" ? body : JSON.stringify(body),
    });
    const answer = await response.json();
    if (response.ok) return { ok: true, answer };
    return { ok: false, refusal: { title: answer.title, fix: answer.detail, fields: answer.fields ?? {} } };
  } catch {
    return {
      ok: false,
      refusal: {
        title: "The application doesn't answer.",
        fix: "Nothing was lost here: try again when it does.",
        fields: {},
      },
    };
  }
}
