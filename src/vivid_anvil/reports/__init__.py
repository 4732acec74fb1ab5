"""Reports of a study: one document, written as HTML, Word or PDF."""

from vivid_anvil.reports.build import build_report
from vivid_anvil.reports.document import Document
from vivid_anvil.reports.write_report import WRITERS, report_bytes, write_report

__all__ = ["WRITERS", "Document", "build_report", "report_bytes", "write_report"]
