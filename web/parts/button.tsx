import { LoaderCircle } from "lucide-react";
import { type ButtonHTMLAttributes, type MouseEvent, useRef, useState } from "react";
import { Link, type LinkProps } from "react-router";

const shapes = {
  main: "bg-leaf text-on-leaf border-leaf hover:brightness-110 font-semibold",
  plain: "bg-sheet text-ink border-line hover:border-soft",
  quiet:
    "bg-transparent text-ink border-transparent hover:bg-leaf-pale aria-pressed:border-leaf aria-pressed:bg-leaf-pale",
  warn: "bg-damson text-on-leaf border-damson hover:brightness-110 font-semibold",
};
type Shape = keyof typeof shapes;

function look(shape: Shape, className = ""): string {
  return `inline-flex items-center justify-center gap-1.5 rounded-md border px-3 py-1.5 min-h-9 text-[0.95rem] leading-tight transition-colors disabled:opacity-50 disabled:cursor-not-allowed ${shapes[shape]} ${className}`;
}

interface ButtonWanted extends Omit<ButtonHTMLAttributes<HTMLButtonElement>, "onClick"> {
  readonly shape?: Shape;
  /** What it does. While a promise of it is open the button says that it works, and a second press does nothing. */
  readonly onClick?: ((event: MouseEvent<HTMLButtonElement>) => unknown) | undefined;
  /** Something else that it stands for is under way: the sending of its form. */
  readonly working?: boolean;
}

/** A button. It keeps its size and its focus while it works. */
export function Button({ shape = "plain", className, onClick, working = false, children, ...rest }: ButtonWanted) {
  const [open, setOpen] = useState(false);
  // A second click comes before the screen has followed the first.
  const locked = useRef(false);
  const busy = open || working;
  const press = (event: MouseEvent<HTMLButtonElement>) => {
    if (locked.current || working) return event.preventDefault();
    const run = onClick?.(event);
    if (!(run instanceof Promise)) return;
    locked.current = true;
    setOpen(true);
    void run.finally(() => {
      locked.current = false;
      setOpen(false);
    });
  };
  return (
    <button
      type="button"
      className={`${look(shape, className)} ${busy ? "relative cursor-progress" : ""}`}
      aria-busy={busy || undefined}
      onClick={press}
      {...rest}
    >
      {children}
      {busy && (
        <span className="absolute inset-0 flex items-center justify-center rounded-md bg-inherit">
          <LoaderCircle size={16} className="animate-spin motion-reduce:animate-none" aria-hidden />
          <span className="sr-only">, working</span>
        </span>
      )}
    </button>
  );
}

export function ButtonLink({ shape = "plain", className, ...rest }: LinkProps & { shape?: Shape }) {
  return <Link className={`button-link ${look(shape, className)}`} {...rest} />;
}
