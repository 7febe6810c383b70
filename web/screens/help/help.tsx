import type { ReactNode } from "react";
import { Link } from "react-router";
import { kinds } from "#core/checks";
import { kindIds } from "#core/ledger";
import { correspondences, ipa, showGrapheme, sounds } from "#core/phonics";
import { Legend } from "#web/parts/marks.tsx";
import { Page } from "#web/parts/page.tsx";
import { Roles } from "./roles.tsx";

/** On a page: what the tool does, what it does not, and how it decides. */
export function Screen() {
  return (
    <Page place="Help" title="Help" about="What this tool does, what it does not, and how it decides.">
      <div className="flex max-w-[46rem] flex-col gap-5">
        <Part title="The loop">
          <p>
            Put children into a <b>Class</b> and mark how far it has been taught. <b>Check</b> one child, or several
            in a row, or a group on paper. See on <b>Gaps</b> who knows what. Let <b>Groups</b> be proposed, change
            them, save them. Plan a <b>Session</b> for a group in the routine of your school, print it or share it,
            and take back what happened. Then check again.
          </p>
        </Part>
        <Part title="When groups meet">
          <p>
            Under <b>Week</b>, Hours and rooms holds the times for sessions, terms, and who is free when. The
            timetable keeps every rule of the school first, then as many wishes as it can, and says how many a better
            one could keep. In use it sets the sessions down on their days; a change for one day stays when the
            timetable is made anew. Whoever takes groups sees their sessions on Today, also those in which they stand
            in for a day, once the lead has said under Settings, People, which of them they are. A calendar outside
            reads a week under a private address; it names no child unless the school says so.
          </p>
        </Part>
        <Part title="The kinds of check">
          <ul className="list-disc pl-5">
            {kindIds.map((id) => (
              <li key={id}>
                <b>{kinds[id].name}</b>: {lower(kinds[id].about)}
              </li>
            ))}
          </ul>
          <p className="mt-2">
            Every kind is marked at the same five places: 1 right at once, 2 right with effort, 3 right in another way
            (or right sounds, wrong blend), 4 something else, 5 no answer. Hold a place, or press Shift with its key,
            for the rarer mark. Q, W, E … mark a likely answer, U takes back, N writes a note, P pauses. What a wrong
            answer says is told at once; where the tool is wrong, press “Another part failed” and name it.
          </p>
          <p className="mt-2">
            All of them move the gap map, each by what it is worth: a card says most of one spelling, a word says a
            little of each of its spellings, a word in a text least.
          </p>
        </Part>
        <Part title="How a reading is scored">
          <ul className="list-disc pl-5">
            <li>
              Words read: from the first to the one where reading stopped, those left out among them. Put-in words are
              no words of the text.
            </li>
            <li>
              A word is wrong once: left out, told, or misread and not put right. Said in the child's own way, sounded
              out and put right are right.
            </li>
            <li>Accuracy = words correct ÷ words read. Words correct per minute = words correct ÷ minutes.</li>
            <li>Errors = wrong words + put-in words. Put right = put right ÷ (put right + wrong words).</li>
            <li>
              Errors a hundred words = errors × 100 ÷ words read. Hesitations: words told, sounded out, said again or
              waited for.
            </li>
            <li>
              Pace of a sentence = its words ÷ its minutes. Times come from the clock at each mark and at each turned
              line; between two of them words are taken to come evenly.
            </li>
            <li>
              Whether a text was too hard, right for teaching or easy, and the aim for the time of year, follow the
              school's figures in Settings. Those that ship are starting values, not laws.
            </li>
            <li>A text that a group read together has no rate and says nothing about one child.</li>
          </ul>
        </Part>
        <Part title="Texts">
          <p>
            The shelf lays every text against the readers that are chosen: how many of its words they can read, which
            spelling is in the way, what it practises, and from which step of their teaching order all of it can be
            read. A school's own text is pasted, chosen as a file or written; every version is kept, and a reading
            keeps the one that was read. <b>Files</b> saves the whole library as JSON: <code>format</code> is{" "}
            <code>keen-sapling texts 1</code>, <code>texts</code> a list in which each has a <code>title</code> and a{" "}
            <code>body</code> with an empty line between paragraphs, and may have <code>exceptions</code>,{" "}
            <code>questions</code> and <code>words</code>.
          </p>
        </Part>
        <Part title="Without a connection">
          <p>
            A check that has begun goes on when the server cannot be reached, also after the page was loaded again.
            The desk says how many marks wait on this device; they go by themselves when there is a connection again.
            Two adults on the same check see each other's marks; if both mark the same item, both answers are kept and
            the first counts.
          </p>
        </Part>
        <Part title="What a mark means">
          <Legend />
          <ul className="mt-2 list-disc pl-5">
            <li>
              Each mark is a word laid over a chance: how likely the child says this spelling at sight today. Cards,
              words and texts read, words written and what a colleague marked in a session all move it, each by what
              it is worth.
            </li>
            <li>
              A worked example. A child who has most of what it was asked right has never been asked <i>ai</i>: 64% is
              likely, from what is known of it and of how hard <i>ai</i> is. It reads <i>rain</i> right at once: 78%,
              and not more, as <i>rain</i> may be known as a whole. A week later it reads <i>train</i> as <i>tran</i>:
              of the four sounds one failed, so <i>ai</i> falls to 53%, and <i>t</i> and <i>r</i> rise. One slip is no
              gap: the mark says <b>not sure yet</b>, and the card is worth asking.
            </li>
            <li>
              What is learned fades: the odds halve in some months, more slowly after each right answer that came
              late, and at each child's own pace. A lesson or a session raises the chance and makes it less sure,
              until the next answer.
            </li>
            <li>
              <b>Secure</b>: as your school says in Settings; as it ships, a chance of 85% or more that is surely over
              a half, from two answers at least.
            </li>
            <li>
              <b>Gap</b>: surely under a half, after two misses at least. <b>Unsteady</b>: surely over a half, and not
              secure. <b>Not sure yet</b>: everything else; the question that would settle it stands with it.
            </li>
            <li>
              Of what was asked twice on a day, the second weighs less; so does what came after help. A chance is no
              diagnosis: see{" "}
              <Link to="/sure" className="underline">
                how sure the tool is
              </Link>
              .
            </li>
            <li>
              Said in the child's own way (an accent, a home language, a speech sound still developing) is right.
            </li>
          </ul>
        </Part>
        <Part title="How groups are proposed">
          <ul className="ml-5 list-disc">
            <li>
              A child needs of a spelling what is missing of its chance; what is secure, was never asked or is yet to
              be taught is no need. A need weighs by what it would bring that child: common words, texts, and what its
              class is taught next. The weights are your school's.
            </li>
            <li>
              A group's targets are the spellings with the greatest sum of weighed needs, less a third for each child
              who has them secure. What is no spelling can be a target too: two sounds that are mixed up, blending,
              exception words, writing, the rate in texts. The tool looks for the groups in which this is greatest,
              within your limits and wishes; it names a limit that cannot be kept and what would help, and says on
              demand how far from the best it can be.
            </li>
            <li>
              “Gains 60%” means: of what lessons of its own would give the child, this group gives so much. Whoever
              has no need of a group's targets is not put into it.
            </li>
            <li>
              What is taught as one thing (“ai and ay”) has one name; each spelling in it keeps its own answers. Your
              school names, splits and joins these in its teaching order.
            </li>
            <li>
              Letters that you teach as one unit (nk, str, ing) are added to a step of your own order with a plus
              between their parts: n+k. A unit has its own card and place on the map. A word with it counts for the
              unit and for each part, and can be read by who knows the one or the other.
            </li>
            <li>
              Who may leave, move or join is proposed with its reason. Who left is looked at again after two, four and
              eight weeks. You have the last word, and what you struck out stays struck out.
            </li>
          </ul>
        </Part>
        <Part title="How a session is filled">
          <p>
            Words come from a list of more than fourteen thousand that suit children. A word is taken only if every
            child of the group reads each of its spellings more often than not, or it is the spelling being taught.
            The target stands at the start, in the middle and at the end where English allows. Words are such as the
            youngest of them knows when they are said: in the first year those that most children know by 5, in the
            second and third by 7, in the fourth by 9. Another age can be asked for under <b>Words</b>, and your
            school can say there from which age its children know a word.
          </p>
        </Part>
        <Part title="The next weeks of a group">
          <p>
            A group's page shows its sessions to come: which spelling is taught on which day, or which two from twenty
            minutes on, and why. The tool foresees how each child will stand by then, from what is believed today and
            how fast it fades, and takes what helps most of them most; what you pinned and what the group works on
            comes first. What was taught twice and is not there is taught in another way. Where nothing is worth its
            time, the session is review alone. A session can also be about a pair that is mixed up, a shape of words
            that is not blended, exception words or writing, where that brings more. It is worked out anew after each
            session and check. Press a session to see why, to choose another spelling, or review; drag it, or press
            Alt and an arrow, to change its day. <b>To lay out</b> on a session prints its cards, strips, tiles and
            sheets.
          </p>
        </Part>
        <Part title="A session is taught">
          <p>
            <b>Teach</b> on a session goes through it item by item. Tick who is here and begin; mark each child with
            one tap: got it, with help, not yet. <b>1</b>, <b>2</b> and <b>3</b> mark whose turn it is, the arrows go
            on and back, <b>U</b> takes back. The children see the item in a second window or on another device by a
            code, and nothing else; on one screen alone, <b>What the children see</b> shows it to be turned round.
            There they lay tiles, sort words and tap where they hear a sound; <b>Check</b> shows them which tiles lie
            right. Words of a text are tapped where they go wrong: that is kept as a reading. What they write is shown
            only when you show it. When the session runs late, the line above says what gives way. It works without a
            connection and goes on after a pause. At the end the report is written from the marks: read it, add a
            sentence, send it. Whoever has the link of a session can teach from it too. The next session that is
            planned says what would be other by what was marked, under <b>What would change here</b>.
          </p>
        </Part>
        <Part title="How a word is judged">
          <p>
            Each sound of a word is one unit with the letters that spell it, shown by a bracket. A word can be read
            when every unit is known or being taught; the endings <i>-ed</i> and <i>-es</i> count as known with their
            first sound. A wavy bracket stands under what these readers cannot read yet. A word that is not in the
            list is split by rule and says so: put it right under <b>Words</b>, and it counts so everywhere in your
            school.
          </p>
        </Part>
        <Part title="A new year, and who leaves">
          <p>
            Under <b>Settings</b>, <b>New school year</b> moves all classes up in one step; it can be taken back for a
            day. Who leaves is archived, and is listed there with the day on which your school wants it erased.
            Nothing is erased by itself. A child who is away is <b>absent</b> by one tap on the class list, for that
            day only.
          </p>
        </Part>
        <Part title="People, and who may what">
          <p className="mb-2">
            Each signs in by their name, with a passphrase of their own; the lead makes a link for whoever is new or
            has forgotten it (<b>Settings</b>, <b>People</b>). On a tablet that several people use, each comes in by a
            short code, and it locks by itself. A teacher has classes, an assistant groups: what is not theirs they do
            not see. Who saw a child's page, exported, erased or shared stands in a list that no one can change.
          </p>
          <Roles />
        </Part>
        <Part title="What it does not do">
          <ul className="list-disc pl-5">
            <li>
              A result is a teaching observation, not a diagnosis. Where gaps stay in spite of good teaching, or where
              hearing, sight or speech could be the cause, talk to the family and to the qualified specialist under
              your local procedure.
            </li>
            <li>
              It keeps the least about a child: a first name and initial, a class, a short note that changes the
              session, and answers. Export and erase a child at any time on the child's page. Follow your school's
              policy and the local law on children's data.
            </li>
            <li>
              A child who is tired or upset stops: every check can end at any card and keeps what was done. The
              child's window shows no mark, no score and no clock.
            </li>
          </ul>
        </Part>
        <Part title="Keys">
          <p>
            Press <kbd className="rounded border border-line px-1">?</kbd> anywhere to see the keys of that place, and
            Ctrl K to find a child, a group, a text or a place.
          </p>
        </Part>
        <Part title="Sounds and how to write them">
          <p className="mb-2">
            In a teaching order a spelling is written with its sound, as in <code>ea=ee</code>. A final e that works
            with a vowel is written <code>a_e</code>.
          </p>
          <table className="border-collapse">
            <thead>
              <tr className="text-left text-sm text-soft">
                <th scope="col" className="pr-4 font-semibold">
                  Key
                </th>
                <th scope="col" className="pr-4 font-semibold">
                  Sound
                </th>
                <th scope="col" className="font-semibold">
                  Spellings
                </th>
              </tr>
            </thead>
            <tbody>
              {sounds.map((sound) => (
                <tr key={sound.key} className="border-t border-line/60 align-top">
                  <th scope="row" className="pr-4 text-left font-semibold">
                    {sound.key}
                  </th>
                  <td className="pr-4 whitespace-nowrap">{ipa(sound.key)}</td>
                  <td>
                    {correspondences
                      .filter((entry) => entry.sound === sound.key)
                      .map((entry) => `${showGrapheme(entry.grapheme)} (${entry.keyword})`)
                      .join(", ")}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Part>
      </div>
    </Page>
  );
}

function lower(text: string): string {
  return text.slice(0, 1).toLowerCase() + text.slice(1);
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    // What is not on the screen is laid out when it comes there: the page is long.
    <section className="[content-visibility:auto] [contain-intrinsic-size:auto_16rem]">
      <h2 className="mb-1">{title}</h2>
      {children}
    </section>
  );
}
