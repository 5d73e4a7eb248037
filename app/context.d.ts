import "react-router";

declare module "react-router" {
  interface AppLoadContext {
    /** Marks the scripts that this answer may run. */
    nonce: string;
    /** Network address of who asks. */
    address: string;
  }
}
