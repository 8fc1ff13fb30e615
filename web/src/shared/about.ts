/** What each place is for, and the words that are used there; behind `i`. */
export interface About {
  text: string
  words: [word: string, meaning: string][]
}

export const ABOUT: Record<string, About> = {
  home: {
    text: 'Your classes and their labs. Each lab is drawn as it stands: the more hand-ins behave alike, the larger their compartment.',
    words: [
      ['People', 'who else works on a class, and what they may do'],
      ['Take away', 'gone from sight, and to be had back for 30 days'],
      ['Once more', 'a new class with the same labs, specs, comments and terms, without its people'],
    ],
  },
  'class-list': {
    text: 'Everybody in the class. A file is shown before it is kept: who is new, who changed, who is not in it any more.',
    words: [
      ['namesake', 'somebody else has the same name; their numbers tell them apart'],
      ['group, team', 'who is taught together; who hands in together'],
      ['out', 'no longer in the class; what they handed in stays'],
    ],
  },
  mailbox: {
    text: 'Letters that would have been mailed. Without a mail server of yours nothing leaves this machine.',
    words: [],
  },
  spec: {
    text: 'What is right: the text, the table that follows from it, and what it catches. It is read while you type.',
    words: [
      ['version', 'a text somebody was checked by never changes; saving makes a new one, after showing whose verdict turns'],
      ['file it names', 'lies beside the spec: a model, a bench, a table of vectors'],
      ['file for all', 'is given to every hand-in: a block or a package of the course'],
      ['catch rate', 'of the likely mistakes in the reference, the share that some case shows'],
      ['- in the table', 'nothing is compared there, and nobody is judged by it'],
    ],
  },
  board: {
    text: 'A circuit for this task, as sentences, as text and as a drawing at once, tried in every case while it is made.',
    words: [
      ['sentence', 'what stands below the drawing to put something there: alarm = key & !open_ok'],
      ['beside', 'another circuit, held against this one in all cases'],
      ['put by hand', 'a part that stays where it was put; tidy places everything by itself again'],
    ],
  },
  intake: {
    text: 'What came in, whose it is, and which file, unit and ports are meant. Nobody is guessed at: a doubt waits for your answer.',
    words: [
      ['drop', 'what was given at once: a zip, a folder, files'],
      ['attempt', 'each time somebody handed in for a task; the terms of the lab say which one counts'],
      ['≈', 'a port that is called otherwise; agreed once for everybody'],
      ['put aside', 'counts for nothing, with a reason; it can be taken back'],
    ],
  },
  results: {
    text: 'Everybody who behaves alike in every case is in one compartment: one comment serves them all. Wrong ones come first.',
    words: [
      ['right, against the rules', 'right in every case, but something the task asks for was not kept to'],
      ['not checked', 'no verdict: it could not be read, or the check did not end; nobody is wrong for our fault'],
      ['Is the spec right?', 'asked where so many are wrong in the same way that the spec may be'],
      ['rows', 'students down, cases across, each cell a verdict'],
    ],
  },
  review: {
    text: 'One hand-in: the cases it fails in, why, the lines it comes from, and what is to be said to all who behave like it.',
    words: [
      ['fails when', 'the shortest condition in the inputs, proven over all compared cases'],
      ['smallest change', 'one change in the text that makes every case right, tried before it is said'],
      ['{name}, {when} …', 'filled in for each student when their letter is made; the list stands below the comment'],
      ['what if', 'a copy in which a line is changed, and the cases that turn; nothing of it is kept'],
      ['[ and ]', 'the hand-in before, the next one'],
    ],
  },
  report: {
    text: 'What the class got wrong, for the lecture: without names, to be printed.',
    words: [],
  },
  feedback: {
    text: "Everybody's marks, and the letter as they will see it. Nothing goes out before you release it.",
    words: [
      ['held', 'no mark yet: it was not checked; a mark given in the review counts'],
      ['*', 'a mark that was set by hand'],
      ['changed since', 'the letter that is out says something else than today'],
      ['take back', 'a letter that nobody has opened is as if it had not been sent'],
    ],
  },
}
