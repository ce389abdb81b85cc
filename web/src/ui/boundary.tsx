import { Component, type ReactNode } from "react";
import { Press } from "./button";
import { Card, Page } from "./page";

/** What stands in for a view that cannot be shown, with a way to try again. The rest of the page goes on. */
export class Boundary extends Component<{ children: ReactNode; where: string }, { error?: unknown }> {
  override state: { error?: unknown } = {};

  static getDerivedStateFromError(error: unknown) {
    return { error };
  }

  override componentDidUpdate(before: { where: string }) {
    // Another address is another view: it may well be shown.
    if (before.where !== this.props.where && this.state.error !== undefined)
      this.setState({ error: undefined });
  }

  again = () => {
    // A part that could not be fetched is asked for again only by a new page.
    if (isMissing(this.state.error)) location.reload();
    else this.setState({ error: undefined });
  };

  override render() {
    if (this.state.error === undefined) return this.props.children;
    return (
      <Page>
        <Card kind="warn" role="alert" data-testid="broken">
          <strong>
            {isMissing(this.state.error)
              ? "This view could not be fetched. Is Oarweed still running?"
              : "This view cannot be shown."}
          </strong>
          <p>Nothing that was saved is lost.</p>
          <Press look="main" mt="3" onClick={this.again}>
            Try again
          </Press>
        </Card>
      </Page>
    );
  }
}

/** The script of a view did not come. */
const isMissing = (error: unknown) =>
  error instanceof TypeError &&
  /dynamically imported module|Importing a module|module script/i.test(error.message);
