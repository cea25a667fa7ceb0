"""A worker that is killed in the middle of a way out: nothing is doubled, nothing is lost."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from tallpage.core import pdf
from tallpage.core.handover import MailServer, _channels
from tallpage.core.uploads import FormTarget
from tallpage.demo.stand_ins.mail import Letterbox
from tallpage.demo.stand_ins.publishing import PublishingSite
from tallpage.server.handover import sharing
from tallpage.server.handover.models import HandOver, Published, SharedLink
from tallpage.server.handover.ways import mail
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.running import run_job
from tallpage.server.shelf.models import Capture
from tests.server.conftest import Api
from tests.server.handover.conftest import Killed, begin_again

MakeOutput = Callable[..., dict[str, Any]]


@pytest.fixture
def outputs(capture: Capture, make_output: MakeOutput) -> list[int]:
    return [make_output(capture, width_px=width)["id"] for width in (160, 200, 240)]


def begun(api: Api, way: str, **order: Any) -> int:
    """An order whose worker is killed on the way; the number of its line."""
    what = {"outputs": order.pop("outputs")}
    line = api.send("POST", "/hand-overs", {"order": {"way": way, "what": what, **order}}, status=202)
    job = HandOver.objects.get(pk=line["id"]).job
    assert job is not None
    with pytest.raises(Killed):
        run_job(job.pk)
    return int(line["id"])


def dies_at(
    number: int, monkeypatch: pytest.MonkeyPatch, owner: Any, name: str, *, after: bool = True
) -> None:
    """Let the worker be killed at a call of something, counted from 1: after it was done, or before."""
    original = getattr(owner, name)
    count = iter(range(1, 1_000))

    def counted(*args: Any, **kwargs: Any) -> Any:
        last = next(count) == number
        if last and not after:
            raise Killed
        result = original(*args, **kwargs)
        if last:
            raise Killed
        return result

    monkeypatch.setattr(owner, name, counted)


def test_a_folder_is_filled_to_the_end_and_there_is_one(
    api: Api, outputs: list[int], out: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    dies_at(2, monkeypatch, _channels, "write_whole")
    line_id = begun(api, "folder", outputs=outputs, folder="For print")
    assert len(list((out / "For print").iterdir())) == 2
    begin_again(line_id)
    line = api.get(f"/hand-overs/{line_id}")
    assert line["job"]["state"] == "done"
    assert [path.name for path in out.iterdir()] == ["For print"]
    assert sorted(path.name for path in (out / "For print").iterdir()) == sorted(
        row["name"] for row in line["files"]
    )
    assert len(line["files"]) == 5


@pytest.mark.long
def test_a_pdf_is_made_anew_and_there_is_one(
    api: Api, outputs: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    dies_at(1, monkeypatch, pdf, "make_pdf")
    line_id = begun(api, "pdf", outputs=outputs)
    assert api.get(f"/hand-overs/{line_id}")["file_url"] == ""
    begin_again(line_id)
    line = api.get(f"/hand-overs/{line_id}")
    assert (line["job"]["state"], line["sheets"]) == ("done", 3)


@pytest.mark.long
def test_a_link_leads_nowhere_until_it_is_whole_and_there_is_one(
    api: Api, outputs: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    dies_at(2, monkeypatch, sharing, "save_png")
    line_id = begun(api, "link", outputs=outputs)
    link = SharedLink.objects.get()
    assert not link.leads_somewhere()
    begin_again(line_id)
    assert SharedLink.objects.get().leads_somewhere()
    assert len(SharedLink.objects.get().pictures) == 3


@pytest.mark.parametrize("after", [True, False])
def test_a_mail_is_never_sent_twice_and_what_is_not_known_is_said(
    api: Api,
    outputs: list[int],
    letterbox: Letterbox,
    settings: Any,
    monkeypatch: pytest.MonkeyPatch,
    after: bool,
) -> None:
    sizes = [file.bytes for file in Capture.objects.get().cuts.get().outputs.get(pk=outputs[-1]).files.all()]
    settings.MAIL_LIMIT_BYTES = int(max(sizes) * 1.4) + 6_000
    dies_at(2, monkeypatch, MailServer, "send", after=after)
    line_id = begun(api, "mail", outputs=outputs, to="isa@skerrin.example")
    begin_again(line_id)
    line = api.get(f"/hand-overs/{line_id}")
    assert line["job"]["error"]["code"] == "mail_in_doubt"
    assert line["job"]["error"]["sentence"].startswith("Mail 2 of ")
    assert len(letterbox.mails()) == (2 if after else 1)
    keys = [message["Message-ID"] for _, message in letterbox.mails()]
    assert len(set(keys)) == len(keys)


@pytest.mark.long
def test_mails_that_had_left_are_not_sent_again(
    api: Api, outputs: list[int], letterbox: Letterbox, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    sizes = [file.bytes for file in Capture.objects.get().cuts.get().outputs.get(pk=outputs[-1]).files.all()]
    settings.MAIL_LIMIT_BYTES = int(max(sizes) * 1.4) + 6_000
    dies_at(2, monkeypatch, mail, "note_progress")  # the first mail was sent, and that is noted
    line_id = begun(api, "mail", outputs=outputs, to="isa@skerrin.example")
    begin_again(line_id)
    assert api.get(f"/hand-overs/{line_id}")["job"]["state"] == "done"
    subjects = [message["Subject"] for _, message in letterbox.mails()]
    assert len(subjects) == len(set(subjects)) > 1


@pytest.mark.parametrize("place", ["sent", "noted"])
def test_an_upload_publishes_each_file_once(
    api: Api,
    capture: Capture,
    make_output: MakeOutput,
    outlet_id: int,
    publishing: PublishingSite,
    monkeypatch: pytest.MonkeyPatch,
    place: str,
) -> None:
    outputs = [make_output(capture, width_px=width)["id"] for width in (160, 200)]
    if place == "sent":
        dies_at(1, monkeypatch, FormTarget, "put")
    else:
        dies_at(1, monkeypatch, Published.objects, "get_or_create")
    line_id = begun(api, "upload", outputs=outputs, outlet=outlet_id)
    assert len(publishing.published) == 1
    begin_again(line_id)
    line = api.get(f"/hand-overs/{line_id}")
    assert line["job"]["state"] == "done"
    assert len(publishing.published) == 2
    assert Published.objects.count() == 2
    assert len(line["files"]) == 2
    assert all(row["address"] for row in line["files"])


def test_work_that_breaks_off_again_and_again_is_given_up(
    api: Api, outputs: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    def dies(*_: object, **__: object) -> None:
        raise Killed

    monkeypatch.setattr(pdf, "make_pdf", dies)
    line_id = begun(api, "pdf", outputs=outputs)
    for _ in range(2):
        with pytest.raises(Killed):
            begin_again(line_id)
    begin_again(line_id)
    assert api.get(f"/hand-overs/{line_id}")["job"]["error"]["code"] == "worker_lost"
    assert not Job.objects.filter(state=Job.State.RUNNING).exists()
