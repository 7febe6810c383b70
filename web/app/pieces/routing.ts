export { createBrowserRouter } from "react-router";
export { default as useSWR } from "swr";
