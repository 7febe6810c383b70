import type { Server } from "node:http";
import type { Problem } from "#contract";

/**
 * What never reaches the application, an address of ten thousand letters for example, is answered in words too, where Node
 * would close the line without any.
 */
export function answerUnreadable(server: Server): void {
  server.on("clientError", (error: NodeJS.ErrnoException, socket) => {
    if (error.code === "ECONNRESET" || !socket.writable) return socket.destroy();
    const status = error.code === "HPE_HEADER_OVERFLOW" ? 431 : 400;
    const problem: Problem = {
      type: "about:blank",
      title: "Not readable",
      status,
      detail: "The request cannot be read: its address is too long or malformed. Nothing was changed.",
      fields: [],
    };
    const body = JSON.stringify(problem);
    socket.end(
      `HTTP/1.1 ${status} Not readable\r\nContent-Type: application/problem+json\r\nContent-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
    );
  });
}
