"""What is crossed out stays in sight and does not hold: it is never an event, whatever it is written in, and is told; merged cells of pages."""

import json
import zipfile
from pathlib import Path

import openpyxl
import pytest
from openpyxl.cell.rich_text import CellRichText, TextBlock
from openpyxl.cell.text import InlineFont
from openpyxl.styles import Font

from helpers import built, nomarium

_LEFT = ["Regatta 2026-09-14/2026-09-15", "Fair 2026-09-16/2026-09-17"]
_NS = "urn:oasis:names:tc:opendocument:xmlns:"
_SPACES = " ".join(f'xmlns:{name}="{_NS}{name}:1.0"' for name in ("office", "style", "text", "table"))
_STYLES = (
    '<office:automatic-styles><style:style style:name="K"><style:text-properties style:text-line-through-style="solid"/>'
    '</style:style><style:style style:name="P"><style:text-properties style:text-line-through-style="none"/></style:style>'
    "</office:automatic-styles>"
)


def _archive(path: Path, **parts: str) -> Path:
    with zipfile.ZipFile(path, "w") as archive:
        for name, text in parts.items():
            inside = (
                "META-INF/manifest.xml"
                if name == "manifest"
                else name.replace("__", "/").replace("_xml", ".xml")
            )
            archive.writestr(inside, text)
    return path


def _told(source: Path) -> str:
    return " ".join(nomarium("build", source, "-o", source.with_suffix(".ics")).text.split())


def test_crossed_out_cells_and_words_of_a_workbook(tmp_path: Path) -> None:
    book = openpyxl.Workbook()
    sheet = book.active
    sheet.append(["Date", "Event"])
    through, plain = Font(strike=True), InlineFont(b=True)
    rows = [("2026-09-14", "Regatta"), ("2026-09-15", "Talk")]
    for row in rows:
        sheet.append(row)
    for cell in sheet[3]:
        cell.font = through
    words = CellRichText([TextBlock(InlineFont(strike=True), "Sale "), TextBlock(plain, "Fair")])
    sheet.append(["2026-09-16", words])
    source = tmp_path / "plan.xlsx"
    book.save(source)
    assert built(source) == _LEFT
    assert "3 cells are crossed out and not read: A3, B3, B4." in _told(source)


def test_a_line_through_nothing_and_one_taken_away_again_cross_nothing_out(tmp_path: Path) -> None:
    book = openpyxl.Workbook()
    sheet = book.active
    for row in [("Date", "Event", ""), ("2026-09-14", "Regatta", None), ("2026-09-16", "Fair", None)]:
        sheet.append(row)
    sheet["C2"].font = Font(strike=True)
    sheet["B2"].font = Font(strike=False)
    source = tmp_path / "plan.xlsx"
    book.save(source)
    assert built(source) == _LEFT
    assert "crossed out" not in _told(source)


def test_crossed_out_cells_and_words_of_an_opendocument_workbook(tmp_path: Path) -> None:
    def cell(text: str, style: str = "P") -> str:
        return f'<table:table-cell table:style-name="{style}" office:value-type="string"><text:p>{text}</text:p></table:table-cell>'

    table = "".join(
        f"<table:table-row>{row}</table:table-row>"
        for row in (
            cell("Date") + cell("Event"),
            cell("2026-09-14") + cell("Regatta"),
            cell("2026-09-15", "K") + cell("Talk", "K"),
            cell("2026-09-16") + cell('<text:span text:style-name="K">Sale</text:span> Fair'),
        )
    )
    source = _archive(
        tmp_path / "plan.ods",
        mimetype="application/vnd.oasis.opendocument.spreadsheet",
        content_xml=f'<?xml version="1.0"?><office:document-content {_SPACES}>{_STYLES}<office:body><office:spreadsheet>'
        f'<table:table table:name="A">{table}</table:table></office:spreadsheet></office:body></office:document-content>',
        manifest='<?xml version="1.0"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"/>',
    )
    assert built(source) == _LEFT
    assert "3 cells are crossed out and not read: A3, B3, B4." in _told(source)


_W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"'


def _run(text: str, looks: str = "") -> str:
    return f'<w:r><w:rPr>{looks}</w:rPr><w:t xml:space="preserve">{text}</w:t></w:r>'


@pytest.mark.parametrize("looks", ["<w:strike/>", '<w:dstrike w:val="true"/>'])
def test_crossed_out_words_of_a_document(tmp_path: Path, looks: str) -> None:
    rows = [
        [_run("Date"), _run("Event")],
        [_run("14 September 2026"), _run("Regatta", '<w:strike w:val="0"/>')],
        [_run("15 September 2026", looks), _run("Talk", looks)],
        [_run("16 September 2026"), _run("Sale ", looks) + _run("Fair")],
    ]
    table = "".join(
        f"<w:tr>{''.join(f'<w:tc><w:p>{cell}</w:p></w:tc>' for cell in row)}</w:tr>" for row in rows
    )
    document = f'<?xml version="1.0"?><w:document {_W}><w:body><w:tbl>{table}</w:tbl></w:body></w:document>'
    source = _archive(tmp_path / "plan.docx", word__document_xml=document)
    assert built(source) == _LEFT
    assert "3 texts are crossed out and not read: “15 September 2026”, “Talk”, “Sale”." in _told(source)


def test_crossed_out_lines_of_an_opendocument_text(tmp_path: Path) -> None:
    lines = (
        "<text:p>14 September 2026: Regatta</text:p>"
        '<text:p text:style-name="K">15 September 2026: Talk</text:p>'
        '<text:p>16 September 2026: <text:span text:style-name="K">Sale</text:span> Fair</text:p>'
    )
    source = _archive(
        tmp_path / "plan.odt",
        mimetype="application/vnd.oasis.opendocument.text",
        content_xml=f'<?xml version="1.0"?><office:document-content {_SPACES}>{_STYLES}<office:body><office:text>{lines}'
        "</office:text></office:body></office:document-content>",
    )
    assert built(source) == _LEFT
    assert "2 texts are crossed out and not read: “15 September 2026: Talk”, “Sale”." in _told(source)


@pytest.mark.parametrize(
    ("name", "text"),
    [
        (
            "plan.html",
            "<table><tr><th>Date<th>Event<tr><td>14 September 2026<td>Regatta<tr><td><s>15 September 2026</s><td><del>Talk</del>"
            '<tr><td>16 September 2026<td><span style="text-decoration: line-through">Sale</span> Fair</table>',
        ),
        (
            "plan.md",
            "| Date | Event |\n|---|---|\n| 14 September 2026 | Regatta |\n| ~~15 September 2026~~ | ~~Talk~~ |\n"
            "| 16 September 2026 | ~~Sale~~ Fair |\n",
        ),
    ],
)
def test_crossed_out_cells_of_a_page_and_of_a_note(tmp_path: Path, name: str, text: str) -> None:
    source = tmp_path / name
    source.write_text(text, "utf-8")
    assert built(source) == _LEFT
    assert "3 texts are crossed out and not read: “15 September 2026”, “Talk”, “Sale”." in _told(source)


def test_a_cell_of_a_page_that_reaches_down_beside_the_last_one_is_of_its_rows(tmp_path: Path) -> None:
    source = tmp_path / "plan.html"
    source.write_text(
        '<table><tr><th>Day<th>Time<th>What<th>Where<tr><td rowspan="3">Sat 12 Sep 2026<td>09:00<td>Breakfast<td rowspan="2">Loft 1'
        "<tr><td>10:00<td>Knots<tr><td>14:00<td>Race<td>Quay</table>",
        "utf-8",
    )
    assert [line.rpartition(" @ ")[2] for line in built(source)] == ["Loft 1", "Loft 1", "Quay"]


def test_a_line_through_a_text_that_nobody_ended_ends_with_its_cell_and_is_told(tmp_path: Path) -> None:
    source = tmp_path / "plan.html"
    source.write_text(
        "<table><tr><th>Date<th>Event<tr><td>14 September 2026<td>Regatta <s>Talk<tr><td>16 September 2026<td>Fair</td></tr>"
        "<tr hidden><td>17 September 2026<td>Sale</tr></table><p><s>Nobody ended this",
        "utf-8",
    )
    assert built(source) == _LEFT
    assert "2 texts are crossed out and not read: “Talk”, “Nobody ended this”." in _told(source)
    tally = nomarium("tally", source, "--by", "title")
    assert "2 texts are crossed out and not read: “Talk”, “Nobody ended this”." in tally.text
    facts = json.loads(nomarium("tally", source, "--by", "title", "--json").out)
    assert [note["code"] for note in facts["notes"]] == ["crossed-out"]
