"""Reports of a study: one document, written as HTML, Word or PDF."""

from vivid_anvil.ground.extras import needed

needed("matplotlib", "a report", "reports")

from vivid_anvil.reports.build import build_report  # noqa: E402
from vivid_anvil.reports.document import Document  # noqa: E402
from vivid_anvil.reports.write_report import WRITERS, report_bytes, write_report, writer_of  # noqa: E402

__all__ = ["WRITERS", "Document", "build_report", "report_bytes", "write_report", "writer_of"]
