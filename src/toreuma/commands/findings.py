"""Findings on the command line, and the exit status they give."""

import sys

import typer

from toreuma.core.findings import Finding

__all__ = ["exit_with", "has_errors", "print_findings", "stop_on_errors"]


def print_findings(findings: tuple[Finding, ...]) -> None:
    for finding in findings:
        print(f"  {finding.severity}: {finding.what}" + (f" ({finding.why})" if finding.why else ""))


def stop_on_errors(findings: tuple[Finding, ...]) -> None:
    first = next((finding for finding in findings if finding.severity == "error"), None)
    if first is not None:
        print(f"toreuma: {first.operation or 'plan'}: {first.what}; {first.why}", file=sys.stderr)
        raise typer.Exit(1)


def exit_with(findings: tuple[Finding, ...]) -> None:
    if has_errors(findings):
        raise typer.Exit(1)


def has_errors(findings: tuple[Finding, ...]) -> bool:
    return any(finding.severity == "error" for finding in findings)
