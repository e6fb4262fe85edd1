import { Component } from "react";
import type { ReactNode } from "react";

interface Props {
  children: ReactNode;
  /** What is shown instead of what failed. */
  instead: ReactNode;
}

/** Keeps a failure of what is inside to itself: the rest of the page stays. */
export class Caught extends Component<Props> {
  state = { failed: false };
  static getDerivedStateFromError() {
    return { failed: true };
  }
  render() {
    return this.state.failed ? this.props.instead : this.props.children;
  }
}
