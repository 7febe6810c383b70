declare module "fs-native-extensions" {
  /** Takes an advisory lock on an open file of this process; false when another holds it. */
  export function tryLock(file: number): boolean;
  export function unlock(file: number): void;
}
