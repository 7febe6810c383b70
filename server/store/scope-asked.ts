import type { School } from "../house.ts";
import { emptyPreparation, readingOf } from "../testing-school.ts";
import { askingOfPeople } from "./scope-asked-people.ts";
import type { AskedFrom, CasesOf } from "./scope-cases.ts";

/** Every function of every repository of the other school, asked with the ids of the first. */
export function everyAsking(from: AskedFrom) {
  const { other, elsewhere, mine, meeting, routine, ids } = from;
  const { yearId, memberId, deviceId } = ids;
  const { classId, childId, groupId, sessionId, sittingId, checkId, readingId, reportId, textId, presetId, noteId } =
    mine;
  const mark = { childId, markedAt: "2026-11-20T09:00:00.000Z", day: "2026-11-20", markedBy: "D." };
  const note = {
    ...mark,
    id: checkId,
    outcome: "note" as const,
    source: { kind: "check" as const, checkId },
    item: null,
    text: "x",
  };
  const report = { id: reportId, by: "D.", at: mark.markedAt, came: [], reached: null, marks: [], note: "" };
  const actor = { schoolId: elsewhere, as: "teacher" as const, memberId: childId, name: "D." };
  const lead = { ...actor, as: "lead" as const };
  const forKey = `child:${childId}`;
  const today = "2026-11-20";
  /** Asked with the ids of the first school; a repository function without an asking does not compile. */
  const asked: CasesOf<Exclude<keyof School, "shipped" | "together" | "afterwards" | "leaveNoTrace">> = {
    ...askingOfPeople(from),
    settings: {
      row: () => other.settings.row(),
      forget: () => other.settings.forget(),
      wordsChanged: () => other.settings.wordsChanged(),
      read: () => other.settings.read(),
      zone: () => other.settings.zone(),
      dayOf: () => other.settings.dayOf(mark.markedAt),
      startOf: () => other.settings.startOf(today),
      backedUp: () => other.settings.backedUp(new Date(mark.markedAt)),
      parametersOf: () => other.settings.parametersOf(),
      ownModel: () => other.settings.ownModel(),
      slowAfterMs: () => other.settings.slowAfterMs(),
      secureWhen: () => other.settings.secureWhen(),
      change: () => other.settings.change({ name: "Another" }, null),
    },
    classes: {
      list: () => other.classes.list(),
      brief: () => other.classes.brief(),
      find: () => other.classes.find(classId),
      insert: () =>
        other.classes.insert({ id: classId, name: "A", yearGroup: "", orderId: other.shipped.orders[0]?.id ?? "" }),
      update: () => other.classes.update(classId, { name: "Changed" }),
      insertTaught: () =>
        other.classes.insertTaught({
          id: classId,
          classId,
          stepId: null,
          taughtOn: today,
          markedAt: mark.markedAt,
        }),
      taughtMarks: () => other.classes.taughtMarks(classId),
    },
    away: {
      say: () => other.away.say(childId, { day: today, absent: true, today }),
      days: () => other.away.days(childId),
    },
    children: {
      list: () => other.children.list(classId),
      find: () => other.children.find(childId),
      findMany: () => other.children.findMany([childId]),
      whoIsIn: () => other.children.whoIsIn({ ids: [childId], classIds: [classId] }),
      nameTaken: () => other.children.nameTaken(classId, "Mine C."),
      insert: () => other.children.insert([{ id: childId, classId, name: "Theirs" }]),
      update: () => other.children.update(childId, 1, { note: "changed" }),
    },
    erasing: {
      countTraces: () => other.erasing.countTraces({ id: childId, name: "Mine C." }),
      eraseAll: () => other.erasing.eraseAll([{ id: childId, name: "Mine C." }]),
    },
    years: {
      last: () => other.years.last(new Date(mark.markedAt)),
      find: () => other.years.find(yearId, new Date(mark.markedAt)),
      begin: () =>
        other.years.begin(
          {
            id: presetId,
            classes: [{ id: classId, name: "Changed", yearGroup: "9", leaves: true }],
            added: [],
            children: [{ id: childId, from: classId, to: null }],
          },
          { now: new Date(mark.markedAt), today },
        ),
      undo: () => other.years.undo(yearId, new Date(mark.markedAt)),
      forgetBefore: () => other.years.forgetBefore("2027-01-01T00:00:00.000Z"),
      forgetChildren: () => other.years.forgetChildren([childId]),
    },
    leavers: {
      list: () => other.leavers.list(new Date(mark.markedAt)),
      erase: () => other.leavers.erase([childId]),
      erasedIds: () => other.leavers.erasedIds(),
      countErased: () => other.leavers.countErased(),
    },
    orders: {
      list: () => other.orders.list(),
      find: () => other.orders.find(classId),
      insert: () => other.orders.insert({ id: classId, content: { name: "", kind: "", why: "", steps: [] } }),
      update: () => other.orders.update(classId, 1, { name: "", kind: "", why: "", steps: [] }),
      pointsHere: async () => (await other.orders.pointsHere())("ll=l"),
      ship: () => other.orders.ship(),
      setShipped: () => other.orders.setShipped(presetId, { name: "", kind: "", why: "", steps: [] }),
      remove: () => other.orders.remove(classId),
    },
    taught: {
      taughtByClass: () => other.taught.taughtByClass(),
      taughtByChild: async () => (await other.taught.taughtByChild())(childId, classId),
      taughtToClass: () => other.taught.taughtToClass(classId),
    },
    places: {
      placesIn: async () => (await other.places.placesIn())(childId),
      standingIn: () => other.places.standingIn(classId),
      forgetOrder: () => other.places.forgetOrder(classId),
      placeOfChild: () => other.places.placeOfChild(childId, classId),
      historyOfChild: () => other.places.historyOfChild(childId),
      placeOfGroup: () => other.places.placeOfGroup(groupId),
      insertPlace: () =>
        other.places
          .insertPlace(
            { childId },
            { id: classId, orderId: null, stepId: null, again: false, taughtOn: today, markedAt: mark.markedAt },
          )
          .catch(() => null),
    },
    checks: {
      byIds: () => other.checks.byIds([checkId]),
      ofChild: () => other.checks.ofChild(childId),
      byMinute: () => other.checks.byMinute([childId]),
      findSitting: () => other.checks.findSitting(sittingId),
      ofSitting: () => other.checks.ofSitting(sittingId),
      insertSitting: () =>
        other.checks.insertSitting({ id: sittingId, name: "S", startedAt: mark.markedAt }, [
          { id: checkId, childId, scope: "all", items: [], seed: 1, startedAt: mark.markedAt },
        ]),
      countOpen: () => other.checks.countOpen(),
      openSittings: () => other.checks.openSittings(9),
      giveSitting: () => other.checks.giveSitting(sittingId, null),
      recentlyEnded: () => other.checks.recentlyEnded(9),
    },
    presets: {
      list: () => other.presets.list(),
      find: () => other.presets.find(presetId),
      put: () => other.presets.put({ id: presetId, version: 1, name: "P", purpose: "", sections: [] }),
      remove: () => other.presets.remove(presetId),
    },
    known: { knowledgeOf: () => other.known.knowledgeOf([childId], new Date(mark.markedAt)) },
    faces: {
      deskOf: () => other.faces.deskOf("123456"),
      codeOf: () => other.faces.codeOf(sittingId),
      open: () => other.faces.open({ deskId: sittingId, code: "123457", openedAt: mark.markedAt }),
      close: () => other.faces.close([sittingId]),
      closeBefore: () => other.faces.closeBefore("2026-12-01T00:00:00.000Z"),
    },
    ledger: {
      take: () => other.ledger.take([note], () => false),
      entriesSince: () => other.ledger.entriesSince(sittingId, { [childId]: 1 }),
      countsOfChecks: () => other.ledger.countsOfChecks(childId),
      logOfChecks: () => other.ledger.logOfChecks([checkId]),
      logOfChildren: () => other.ledger.logOfChildren([childId]),
      standingOfChildren: () => other.ledger.standingOfChildren([childId]),
    },
    readings: {
      ofChild: () => other.readings.ofChild(childId),
      ofChildren: () => other.readings.ofChildren([childId]),
      timedSince: () => other.readings.timedSince([childId], "2026-11-01"),
      find: () => other.readings.find(readingId),
      remove: () => other.readings.remove(readingId, { markedAt: mark.markedAt, day: today, markedBy: "Someone" }),
      put: () => other.readings.put({ id: readingId, ...readingOf(childId, "Changed") }),
    },
    notes: {
      on: () => other.notes.on(lead, today, { childId, groupId: null, sessionId: null }),
      unread: () => other.notes.unread(lead, today),
      find: () => other.notes.find(noteId),
      put: () =>
        other.notes.put({
          ...{ id: noteId, childId, groupId: null, sessionId: null, text: "Seen", who: "all", forId: null },
          ...{ byId: null, by: "D.", at: mark.markedAt, until: null },
        }),
      takeAway: () => other.notes.takeAway(noteId, mark.markedAt),
      haveRead: () => other.notes.haveRead(lead, [noteId]),
      ofChild: () => other.notes.ofChild(childId),
      forgetGone: () => other.notes.forgetGone({ at: "2099-01-01T00:00:00.000Z", day: "2099-01-01" }),
    },
    standings: {
      numbers: () => other.standings.numbers(today),
      gapMap: () => other.standings.gapMap(today, classId),
      standingsOf: () => other.standings.standingsOf(childId, today),
      commonOf: () => other.standings.commonOf([childId], today),
      readersOf: () => other.standings.readersOf([childId], today),
      dueOf: () => other.standings.dueOf([childId], today),
      reasonFor: () => other.standings.reasonFor(childId, "say s=s", today).catch(() => null),
      toForetell: () => other.standings.toForetell([childId]),
      secondLooks: () => other.standings.secondLooks([childId], today),
      leftOutOfChild: () => other.standings.leftOutOfChild(childId),
      otherNeedsOf: async () => (await other.standings.otherNeedsOf([childId], today)).get(childId),
      chancesOf: () => other.standings.chancesOf(today, classId),
      changesBy: () => other.standings.changesBy(childId, { readingId }, today).catch(() => null),
      seekFrom: () => other.standings.seekFrom([childId], today),
      askedOn: async () => (await other.standings.askedOn([childId])).get(childId)?.("s=s"),
      confusionsOf: () => other.standings.confusionsOf(childId, new Map(), today),
    },
    groups: {
      list: () => other.groups.list(),
      find: () => other.groups.find(groupId),
      history: () => other.groups.history(groupId),
      everyState: () => other.groups.everyState(),
      historyOfChild: () => other.groups.historyOfChild(childId),
      save: () =>
        other.groups.save(
          {
            id: groupId,
            groupId,
            name: "G",
            members: [{ childId, locked: false }],
            ...{ targets: [], besides: [] },
            savedAt: mark.markedAt,
            why: "",
          },
          null,
        ),
      setClosed: () => other.groups.setClosed(groupId, true),
      setReads: () => other.groups.setReads(groupId, "most"),
      block: () => other.groups.block(groupId),
      setBlockWeeks: () => other.groups.setBlockWeeks(groupId, 8),
      fixBlock: () => other.groups.fixBlock(groupId, { today, days: [{ on: today, gpcs: [] }] }),
      setRoutine: () => other.groups.setRoutine(groupId, "short"),
    },
    grouping: {
      read: () => other.grouping.read(),
      wishes: () => other.grouping.wishes(),
      putWish: () =>
        other.grouping.putWish({
          ...{ id: yearId, kind: "alone", childId, otherId: null, by: "D.", since: today },
        }),
      removeWish: () => other.grouping.removeWish(childId, mine.wishId),
      saidOn: () => other.grouping.saidOn(today),
      sayNext: () => other.grouping.sayNext({ childId }, "s=s", null),
      movesOff: () => other.grouping.movesOff(today),
      putMoveOff: () => other.grouping.putMoveOff(childId, "leave", "2026-12-24"),
      ofChild: () => other.grouping.ofChild(childId),
    },
    routines: {
      list: () => other.routines.list(),
      find: () => other.routines.find(yearId),
      named: () => other.routines.named(yearId),
      save: () => other.routines.save(yearId, { version: 1, routine }),
      remove: () => other.routines.remove(yearId),
    },
    week: {
      read: () => other.week.read(),
      ownHours: () => other.week.ownHours(),
      ownHoursOf: () => other.week.ownHoursOf(childId),
      putOwnHours: () => other.week.putOwnHours({ childId, version: 1, hours: null }),
      placements: () => other.week.placements(),
      putPlacements: () => other.week.putPlacements([]),
      meetingsOn: () => other.week.meetingsOn("2026-01-01", "2027-01-01"),
      meetingsFrom: () => other.week.meetingsFrom("2026-01-01"),
      endFeedsOf: () => other.week.endFeedsOf([childId]),
      meetingsOf: () => other.week.meetingsOf({ of: "class", about: classId, groupIds: [groupId] }),
      putMeetings: () =>
        other.week.putMeetings({ added: [], changed: [{ ...meeting, cancelled: true }] }, mark.markedAt),
      findMeetings: () => other.week.findMeetings([meeting.id]),
      endGroup: () => other.week.endGroup(groupId, { from: "2026-01-01", changedAt: mark.markedAt }),
      feeds: () => other.week.feeds(),
      addFeed: () => other.week.addFeed({ id: deviceId, whose: `child:${childId}` }, "hash"),
      feedByHash: () => other.week.feedByHash("mine"),
      endFeed: () => other.week.endFeed(memberId),
    },
    sessions: {
      list: () => other.sessions.list({ groupId }),
      view: () => other.sessions.view(sessionId),
      countDue: () => other.sessions.countDue("2026-01-01", "2026-12-31"),
      find: () => other.sessions.find(sessionId),
      findRemoved: () => other.sessions.findRemoved(sessionId),
      give: () => other.sessions.give(sessionId, null),
      insert: () =>
        other.sessions.insert(
          {
            id: sessionId,
            groupId,
            heldOn: today,
            plan: { target: "s=s", parts: [], remarks: [] },
            known: [],
            wholes: [],
          },
          [childId],
        ),
      update: () => other.sessions.update(sessionId, 1, { heldOn: "2026-12-24" }),
      setRemoved: () => other.sessions.setRemoved(sessionId, mark.markedAt),
      membersOf: () => other.sessions.membersOf(sessionId),
      countPlaces: () => other.sessions.countPlaces([sessionId]),
      shareOf: () => other.sessions.shareOf(sessionId),
      sharedIds: () => other.sessions.sharedIds(),
      listShares: () => other.sessions.listShares(today),
      openedShare: () => other.sessions.openedShare(sessionId, mark.markedAt),
      setShare: () => other.sessions.setShare(sessionId, "hash", today),
      deleteShare: () => other.sessions.deleteShare(sessionId),
      shareByHash: () => other.sessions.shareByHash("hash"),
      reportsOf: () => other.sessions.reportsOf([sessionId]),
      insertReport: () => other.sessions.insertReport(sessionId, report, { day: today, byLink: false }),
      countByLink: () => other.sessions.countByLink(sessionId),
      deleteReport: () => other.sessions.deleteReport(report, { markedAt: mark.markedAt, day: today }),
      ofChild: () => other.sessions.ofChild(childId),
      forgetRemoved: () => other.sessions.forgetRemoved("2027-01-01T00:00:00.000Z"),
    },
    diary: {
      sessions: () => other.diary.sessions({ groupId }),
      lastHeld: () => other.diary.lastHeld(),
      heads: () => other.diary.heads({ groupId }),
    },
    planning: {
      toFill: () =>
        other.planning.toFill({
          ...{ childIds: [childId], targets: [], wish: "s=s", today, reads: "all", groupId, routine: yearId },
        }),
    },
    texts: {
      listOwn: () => other.texts.listOwn(),
      versionsOf: () => other.texts.versionsOf(textId),
      addVersion: () =>
        other.texts.addVersion(textId, {
          version: 1,
          content: { title: "T", exceptions: [], body: "A", questions: [], words: [] },
          savedAt: mark.markedAt,
          savedBy: "D.",
        }),
      setRemoved: () => other.texts.setRemoved(textId, mark.markedAt),
      findPreparation: () => other.texts.findPreparation(textId, forKey),
      putPreparation: () => other.texts.putPreparation({ textId, forKey, version: 1, preparation: emptyPreparation }),
      forgetRemoved: () => other.texts.forgetRemoved("2027-01-01T00:00:00.000Z"),
    },
    words: {
      list: () => other.words.list(),
      put: () =>
        other.words.put({
          ...{ id: presetId, key: "mat", text: "mat", units: ["m=m"] },
          reason: "",
          savedAt: mark.markedAt,
        }),
      remove: () => other.words.remove(presetId),
      listAges: () => other.words.listAges(),
      putAge: () => other.words.putAge({ id: presetId, key: "mat", text: "mat", knownBy: 9, savedAt: mark.markedAt }),
      removeAge: () => other.words.removeAge(presetId),
      listPictures: () => other.words.listPictures(),
      countPictures: () => other.words.countPictures("mat"),
      putPicture: () =>
        other.words.putPicture({
          ...{ id: presetId, key: "mat", text: "mat", image: "data:", madeBy: "D.", savedAt: mark.markedAt },
        }),
      removePicture: () => other.words.removePicture(presetId),
      read: async () => (await other.words.read()).version,
      setAccent: () => other.words.setAccent("neutral"),
    },
  };
  return asked;
}
