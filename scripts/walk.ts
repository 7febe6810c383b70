// npm run walk [-- FILE FUNCTION PARAMETER]: follows what a function is given through the calls that pass it or a part of it
// on, in the order in which the code is written, and counts the files that it enters, how often it comes back to one that it
// had left, and the names that it has on its way. Without arguments: the school that the routes of sessions are given. What
// a method of it does inside is not it any more: the walk ends there, as a handler does.
import { join, relative, resolve } from "node:path";
import ts from "typescript";

const root = resolve(import.meta.dirname, "..");
const [file = "server/sessions/routes.ts", name = "sessionRoutes", given = "serve"] = process.argv.slice(2);

const config = ts.getParsedCommandLineOfConfigFile(join(root, "tsconfig.json"), {}, {
  ...ts.sys,
  onUnRecoverableConfigFileDiagnostic: (problem) => {
    throw new Error(ts.flattenDiagnosticMessageText(problem.messageText, " "));
  },
} as ts.ParseConfigFileHost);
if (!config) throw new Error("No tsconfig.json");
const program = ts.createProgram(config.fileNames, config.options);
const checker = program.getTypeChecker();

type Body = ts.FunctionDeclaration | ts.FunctionExpression | ts.ArrowFunction | ts.MethodDeclaration;

interface Stay {
  readonly room: string;
  readonly by: string;
}
const stays: Stay[] = [];
const names = new Set<string>();
const passed = new Set<string>();

/** The symbols that a binding makes: one for a name, one for each part that is taken out of it. */
function bound(binding: ts.BindingName): ts.Symbol[] {
  if (ts.isIdentifier(binding)) {
    const symbol = checker.getSymbolAtLocation(binding);
    return symbol ? [symbol] : [];
  }
  return binding.elements.flatMap((element) => (ts.isBindingElement(element) ? bound(element.name) : []));
}

const isBody = (node: ts.Node | undefined): node is Body =>
  node !== undefined &&
  (ts.isFunctionDeclaration(node) ||
    ts.isFunctionExpression(node) ||
    ts.isArrowFunction(node) ||
    ts.isMethodDeclaration(node));

/** The function that a call enters, when it is one of ours. */
function entered(call: ts.CallExpression): { body: Body; said: string } | undefined {
  let symbol = checker.getSymbolAtLocation(call.expression);
  if (symbol && symbol.flags & ts.SymbolFlags.Alias) symbol = checker.getAliasedSymbol(symbol);
  const declared = symbol?.valueDeclaration;
  const body =
    declared && (ts.isVariableDeclaration(declared) || ts.isPropertyAssignment(declared))
      ? declared.initializer
      : declared;
  if (!isBody(body) || !body.body || body.getSourceFile().fileName.includes("node_modules")) return undefined;
  return { body, said: symbol?.name ?? "a function" };
}

/** True for an expression that is one of these, a part of it, or holds it; what a call makes of it is something else. */
function isMine(node: ts.Node, mine: ReadonlySet<ts.Symbol>): boolean {
  if (ts.isIdentifier(node)) return has(checker.getSymbolAtLocation(node), mine);
  if (ts.isPropertyAccessExpression(node) || ts.isNonNullExpression(node) || ts.isAsExpression(node))
    return isMine(node.expression, mine);
  if (ts.isParenthesizedExpression(node) || ts.isAwaitExpression(node)) return isMine(node.expression, mine);
  if (ts.isBinaryExpression(node)) return isMine(node.left, mine) || isMine(node.right, mine);
  if (ts.isConditionalExpression(node)) return isMine(node.whenTrue, mine) || isMine(node.whenFalse, mine);
  if (ts.isSpreadAssignment(node)) return isMine(node.expression, mine);
  if (ts.isPropertyAssignment(node)) return isMine(node.initializer, mine);
  if (ts.isShorthandPropertyAssignment(node)) return has(checker.getShorthandAssignmentValueSymbol(node), mine);
  if (ts.isObjectLiteralExpression(node)) return node.properties.some((one) => isMine(one, mine));
  // A scope that is asked of it is a form of it.
  return ts.isCallExpression(node) && isScope(node, mine);
}

const has = (symbol: ts.Symbol | undefined, mine: ReadonlySet<ts.Symbol>) => symbol !== undefined && mine.has(symbol);

/** `house.as(actor)`, `db.transaction((inside) => ...)`. */
function isScope({ expression }: ts.CallExpression, mine: ReadonlySet<ts.Symbol>): boolean {
  return (
    ts.isPropertyAccessExpression(expression) &&
    ["as", "transaction"].includes(expression.name.text) &&
    isMine(expression.expression, mine)
  );
}

/** Of what a handler is given: all of it, or the school that is taken out of it. */
function givenIn(binding: ts.BindingName): ts.Symbol[] {
  if (ts.isIdentifier(binding)) return bound(binding);
  return bound(binding).filter((symbol) => symbol.name === "school");
}

/** Walks through a function as these symbols; inner functions are part of it. */
function walk(node: ts.Node, mine: Set<ts.Symbol>): void {
  const become = (symbols: readonly ts.Symbol[]) => {
    for (const symbol of symbols) {
      mine.add(symbol);
      names.add(symbol.name);
    }
  };
  ts.forEachChild(node, (child) => {
    if (ts.isCallExpression(child) && isScope(child, mine))
      for (const inner of child.arguments)
        if (isBody(inner)) become(inner.parameters.flatMap((parameter) => bound(parameter.name)));
    // The frame gives what it serves for: `serve(endpoint, ({ school }) => ...)`.
    if (ts.isCallExpression(child) && isMine(child.expression, mine))
      for (const inner of child.arguments)
        if (isBody(inner)) become(inner.parameters.flatMap((parameter) => givenIn(parameter.name)));
    walk(child, mine);
    if (ts.isVariableDeclaration(child) && child.initializer && isMine(child.initializer, mine))
      become(bound(child.name));
    if (ts.isCallExpression(child)) pass(child, mine);
  });
}

/** Goes along with a call, as each parameter for which an argument is or holds one of these. */
function pass(call: ts.CallExpression, mine: ReadonlySet<ts.Symbol>): void {
  const at = call.arguments.flatMap((argument, index) => (isMine(argument, mine) ? [index] : []));
  if (at.length === 0) return;
  const target = entered(call);
  if (!target) return;
  enter(target.body, target.said, at);
}

function enter(body: Body, said: string, at: readonly number[]): void {
  const room = relative(root, body.getSourceFile().fileName);
  if (stays.at(-1)?.room !== room) stays.push({ room, by: said });
  const parameters = body.parameters.filter((_, index) => at.includes(index));
  const mine = new Set(parameters.flatMap((parameter) => bound(parameter.name)));
  for (const symbol of mine) names.add(symbol.name);
  const key = `${room} ${body.pos} ${at.join(",")}`;
  if (passed.has(key) || !body.body) return;
  passed.add(key);
  const before = room;
  walk(body.body, mine);
  // What is written behind the call stands where the call stands.
  if (stays.at(-1)?.room !== before) stays.push({ room: before, by: `back in ${said}` });
}

const source = program.getSourceFile(join(root, file));
const start = source?.statements.find(
  (one): one is ts.FunctionDeclaration => ts.isFunctionDeclaration(one) && one.name?.text === name,
);
if (!start) throw new Error(`${file} has no function ${name}.`);
const symbol = start.parameters.flatMap((one) => bound(one.name)).find((one) => one.name === given);
if (!symbol || !start.body) throw new Error(`${name} is given no ${given}.`);
stays.push({ room: file, by: name });
names.add(given);
walk(start.body, new Set([symbol]));

const entries = stays.filter(({ by }) => !by.startsWith("back in"));
const seen = new Set<string>();
let returns = 0;
for (const { room, by } of entries) {
  if (seen.has(room)) returns++;
  seen.add(room);
  console.log(`${room}  by ${by}`);
}
console.log(
  `${seen.size} rooms; ${returns} returns to a room that was left; ${names.size} names: ${[...names].join(", ")}`,
);
