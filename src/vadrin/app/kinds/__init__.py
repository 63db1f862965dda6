"""The kinds of test in the tester's words, one file each, registered here."""

from vadrin.app.kinds import (
    cine_page,
    clip_page,
    colour_push_page,
    compare_page,
    data_sheet_page,
    development_time_page,
    long_exposures_page,
    mixed_roll_page,
    paper_page,
    process_control_page,
    push_page,
    rescue_page,
    reversal_page,
    speed_page,
    two_developers_page,
    wrong_setting_page,
)
from vadrin.app.kinds.kind_page import KindPage, PlanSentence, all_pages, page_of, register_page

for _module in (
    development_time_page,
    speed_page,
    push_page,
    mixed_roll_page,
    rescue_page,
    compare_page,
    two_developers_page,
    clip_page,
    long_exposures_page,
    colour_push_page,
    reversal_page,
    paper_page,
    cine_page,
    process_control_page,
    wrong_setting_page,
    data_sheet_page,
):
    register_page(_module.PAGE)

__all__ = ["KindPage", "PlanSentence", "all_pages", "page_of", "register_page"]
