import { Component, type ReactNode } from "react";
import i18next from "../i18n";
import { Button } from "./Button";

interface Props {
  /** A change of it tries again. */
  at: string;
  children: ReactNode;
}

/** Stands in for a screen that fell: what was typed is kept, and there is a way on. */
export class Fallen extends Component<Props, { fell: boolean }> {
  override state = { fell: false };

  static getDerivedStateFromError() {
    return { fell: true };
  }

  override componentDidUpdate(before: Props) {
    if (before.at !== this.props.at && this.state.fell) this.setState({ fell: false });
  }

  override render() {
    if (!this.state.fell) return this.props.children;
    return (
      <section role="alert" className="max-w-prose space-y-4 p-8">
        <h1 className="text-page">{i18next.t("fallen.title")}</h1>
        <p>{i18next.t("fallen.what")}</p>
        <Button look="strong" onClick={() => window.location.reload()}>
          {i18next.t("fallen.reload")}
        </Button>
      </section>
    );
  }
}
