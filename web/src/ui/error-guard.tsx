import { Component, type ReactNode } from "react";

/** Catches what breaks inside it, so that the rest of the page goes on. */
export class ErrorGuard extends Component<{ children: ReactNode; onError: (e: Error) => void }, { broken: boolean }> {
  state = { broken: false };
  static getDerivedStateFromError() {
    return { broken: true };
  }
  componentDidCatch(e: Error) {
    this.props.onError(e);
  }
  render() {
    return this.state.broken ? null : this.props.children;
  }
}
