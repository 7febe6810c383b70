// Runs before the first paint, so that a dark room does not flash.
(() => {
  const chosen = localStorage.getItem("keen-theme");
  const dark = chosen ? chosen === "dark" : matchMedia("(prefers-color-scheme: dark)").matches;
  document.documentElement.classList.toggle("dark", dark);
})();
