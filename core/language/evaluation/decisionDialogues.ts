/**
 * Dialogues with what is decided and what stays open in them, invented for this and marked by hand before the rules
 * were tried on them. A sentence that ends in "[D]" is a decision, one that ends in "[Q]" a question that nobody
 * answered. The rules may be made with the first half; the second is for the figure only.
 */
import type { Sentence } from '../sentences';
import { sentencesOfText } from '../sentences';

export type DecisionExample = { sentences: (Sentence & { isDecision: boolean; isOpen: boolean })[] };

const TO_WORK_WITH = `
Tamsin: How wide shall the trench be? Two metres or two and a half?
Ottoline: Two metres are enough for the roots.
Tamsin: Good, then we take two metres. [D]
Ottoline: And who pays for the soil? [Q]
Tamsin: I do not know yet. I have to ask the fund.

Jun: Let us meet at nine at the school gate. [D]
Tamsin: Fine.
Jun: Do the children need gloves?
Tamsin: Yes, small ones.
Jun: Where do we put the bicycles? [Q]
Tamsin: Good question.

Bram: I would leave the old lime as it is for another year.
Ottoline: Agreed, we leave it. [D]
Bram: And the one by the lamp?
Ottoline: That one has to go. [D]
Bram: All right.

Tamsin: Have the stakes arrived?
Jun: Yes, on Friday.
Tamsin: And the ties?
Jun: Not yet.
Tamsin: Does anybody know the number of the nursery? [Q]
Jun: No idea.

Ottoline: We decided last week to close the road on the twenty-first. [D]
Bram: Is the bus company told?
Ottoline: Yes, they are.
Bram: How long will it stay closed? [Q]
Ottoline: We will see.

Malmquist: The exam will be in the small hall. [D]
Tamsin: May we bring our tables?
Malmquist: You may. No calculators, though.
Tamsin: Will there be a question about clay? [Q]
Malmquist: Wait and see.

Jun: Apples or pears for the corner?
Tamsin: Apples, I think.
Jun: Apples it is. [D]
Tamsin: Which sort? [Q]
Jun: Let me ask my uncle.

Bram: Should we test the soil first?
Tamsin: It would cost four hundred.
Bram: That is too much.
Tamsin: Then we do not test it. [D]
Bram: Okay.

Petra: Would the nineteenth suit you?
Tamsin: In the morning, yes.
Petra: Then I write down the nineteenth at half past nine. [D]
Tamsin: Perfect. Will it hurt? [Q]
Petra: That depends.

Ottoline: I think we should not water before May.
Bram: I am not so sure about that.
Ottoline: Let us come back to it next week.
Bram: So do we order the bags or not? [Q]
Ottoline: I cannot say today.

Tamsin: Did you like the concert?
Jun: Very much, and you?
Tamsin: I was too tired. It was long, wasn't it?
Jun: It was. What is left for today?
Tamsin: Nothing, we are done.

Ottoline: The vote was five to two, so the benches stay. [D]
Bram: I am glad.
Ottoline: From now on the minutes go to everybody. [D]
Tamsin: What happens with the old drawings? [Q]
Ottoline: Nobody has thought of that.
`;

const FOR_THE_FIGURE = `
Tamsin: Do we plant in April or in October?
Bram: October is better for limes.
Tamsin: Okay, October. [D]
Bram: And who waters them until then? [Q]
Tamsin: That is still open.

Ottoline: The council has agreed to pay half. [D]
Tamsin: Wonderful. And the other half? [Q]
Ottoline: We do not know that yet.

Jun: I can bring the projector.
Tamsin: Great, then you bring it. [D]
Jun: Is there a socket in the tent? [Q]
Tamsin: I would have to check.

Bram: Let's use the wide pits on the north side. [D]
Ottoline: Yes, that makes sense.
Bram: Is the gas pipe marked on your map?
Ottoline: It is, in red.

Malmquist: We will skip chapter four. [D]
Tamsin: And chapter five?
Malmquist: That one you need.
Tamsin: When do we get the results? [Q]
Malmquist: I hope before Easter.

Tamsin: What does a root barrier cost?
Bram: About thirty for the metre.
Tamsin: Too expensive. We do without it. [D]
Bram: As you like.

Jun: Shall we invite the mayor?
Tamsin: I would rather not.
Jun: Fine, no mayor then. [D]
Tamsin: Who makes the speech? [Q]
Jun: Hm, not me.

Ottoline: So it is settled that the path stays open on weekends. [D]
Bram: Right.
Ottoline: Can the dogs stay? [Q]
Bram: We have to look into the rules.

Petra: You can come on Tuesday or on Thursday.
Tamsin: Thursday, please.
Petra: Good, Thursday at ten. [D]
Tamsin: Do I have to fast?
Petra: No, you can eat.

Bram: If it rains, we could wait a week.
Ottoline: Perhaps.
Bram: Or we put up the tent?
Ottoline: Let me think about it.

Tamsin: Were you at the harbour yesterday?
Jun: No, I had visitors.
Tamsin: The water was very high. You should have seen it!
Jun: I believe you.

Ottoline: After a long talk we went for the cheaper lamps. [D]
Tamsin: How many are there?
Ottoline: Fourteen.
Tamsin: And when do they come? [Q]
Ottoline: Nobody could tell me.
`;

const MARK = / ?\[([DQ])\]/;

/** Reads dialogues. Each sentence is a line's or part of one, so a mark belongs to the sentence that it follows. */
function read(list: string): DecisionExample[] {
  return list
    .trim()
    .split(/\n\s*\n/)
    .map((block) => ({
      sentences: block.split('\n').flatMap((line) => {
        const [, speaker = '', words = ''] = /^(\p{L}+): (.*)$/u.exec(line) ?? [];
        return words.split(/(?<=\[[DQ]\]) /).flatMap((part) => {
          const mark = MARK.exec(part)?.[1];
          const sentences = sentencesOfText(part.replace(MARK, ''));
          return sentences.map((s, i) => {
            const isLast = i === sentences.length - 1;
            return { ...s, speaker, isDecision: isLast && mark === 'D', isOpen: isLast && mark === 'Q' };
          });
        });
      }),
    }));
}

export const DECISIONS_DEV_SET = read(TO_WORK_WITH);
export const DECISIONS_TEST_SET = read(FOR_THE_FIGURE);
