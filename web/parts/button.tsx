import type { ButtonHTMLAttributes } from "react";
import { Link, type LinkProps } from "react-router";

const shapes = {
  main: "bg-leaf text-on-leaf border-leaf hover:brightness-110 font-semibold",
  plain: "bg-sheet text-ink border-line hover:border-soft",
  quiet: "bg-transparent text-ink border-transparent hover:bg-leaf-pale",
  warn: "bg-damson text-on-leaf border-damson hover:brightness-110 font-semibold",
};
type Shape = keyof typeof shapes;

function look(shape: Shape, className = ""): string {
  return `inline-flex items-center justify-center gap-1.5 rounded-md border px-3 py-1.5 min-h-9 text-[0.95rem] leading-tight transition-colors disabled:opacity-50 disabled:cursor-not-allowed ${shapes[shape]} ${className}`;
}

export function Button({
  shape = "plain",
  className,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { shape?: Shape }) {
  return <button type="button" className={look(shape, className)} {...rest} />;
}

export function ButtonLink({ shape = "plain", className, ...rest }: LinkProps & { shape?: Shape }) {
  return <Link className={look(shape, className)} {...rest} />;
}
