import * as contract from "#contract";

/** A browser on a server of a test: it keeps cookies, and says where its pages come from. */
export function browserAt(base: () => string) {
  const jar = new Map<string, string>();
  const send = async (
    endpoint: contract.Endpoint,
    asking: { params?: unknown; query?: unknown; body?: unknown } = {},
  ) => {
    const response = await fetch(base() + contract.addressOf(endpoint, asking.params, asking.query), {
      method: endpoint.method,
      headers: {
        "content-type": "application/json",
        origin: base(),
        cookie: [...jar].map(([name, value]) => `${name}=${value}`).join("; "),
      },
      ...(asking.body === undefined ? {} : { body: JSON.stringify(asking.body) }),
    });
    const set = response.headers.getSetCookie();
    for (const line of set) {
      const [pair = ""] = line.split(";");
      const at = pair.indexOf("=");
      if (/max-age=0/i.test(line)) jar.delete(pair.slice(0, at));
      else jar.set(pair.slice(0, at), pair.slice(at + 1));
    }
    const content = (await response.json()) as { detail?: string; fields?: { field: string; says: string }[] };
    return { status: response.status, content, set };
  };
  const ask = async <E extends contract.Endpoint>(endpoint: E, asking: contract.Asking<E>) => {
    const { status, content } = await send(endpoint, asking as never);
    if (status !== 200) throw new Error(`${endpoint.path}: ${status} ${content.detail}`);
    return endpoint.answer.parse(content) as contract.AnswerOf<E>;
  };
  return { jar, send, ask };
}
