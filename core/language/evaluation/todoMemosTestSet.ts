/** The other half: only for the final figure, nothing is chosen on these. See `todoExamples.ts`. */
export const TODO_MEMOS_TEST_SET = `
> Okay, today. I have to ring the harbour office, write the report for Ottoline and pick up the stakes by four.
- Ring the harbour office | me | - | -
- Write the report for Ottoline | me | - | -
- Pick up the stakes | me | 2026-03-09T16:00 | -

> Remember to switch off the heater in the shed.
- Switch off the heater in the shed | me | - | -

> I, um, I should really clean the bicycle and, well, oil the chain at the weekend.
- Clean the bicycle | me | 2026-03-14 | -
- Oil the chain | me | 2026-03-14 | -

> The invoice must be paid within fourteen days.
- Pay the invoice | - | 2026-03-23 | -

> Jun will paint the signs on Saturday.
- Paint the signs | Jun | 2026-03-14 | -

> Bram promised he'd bring the air spade on the seventeenth.
- Bring the air spade | Bram | 2026-03-17 | -

> Scan, name and send the old maps by the end of the week.
- Scan the old maps | me | 2026-03-13 | -
- Name the old maps | me | 2026-03-13 | -
- Send the old maps | me | 2026-03-13 | -

> For the quay: photograph every pit. For the orchard: ask the head teacher about the fence. At home: fix the tap.
- Photograph every pit | me | - | Quayside limes
- Ask the head teacher about the fence | me | - | School orchard
- Fix the tap | me | - | Home

> I have done the dishes and I have paid the rent, but the plants still need to be watered.
- Water the plants | - | - | -

> The survey has to be sent to the engineer before Wednesday.
- Send the survey to the engineer | - | 2026-03-11 | -

> Every Monday I need to update the watering table.
- Update the watering table | me | 2026-03-16 | - | FREQ=WEEKLY;BYDAY=MO

> Take the tablets twice a day, and measure the blood pressure every evening.
- Measure the blood pressure | me | 2026-03-09 | - | FREQ=DAILY

> Things to buy: soap, a new brush, two rolls of twine.
- Buy soap | me | - | -
- Buy a new brush | me | - | -
- Buy two rolls of twine | me | - | -

> Number one, hire the van. Number two, call the volunteers. Number three, check the weather on Friday.
- Hire the van | me | - | -
- Call the volunteers | me | - | -
- Check the weather | me | 2026-03-13 | -

> Book a table for four, order a cake, and invite Petra. No, scratch the cake, Jun bakes one.
- Book a table for four | me | - | -
- Invite Petra | me | - | -
- Bake a cake | Jun | - | -

> Don't let me forget the keys, and make sure to lock the gate.
- Remember the keys | me | - | -
- Lock the gate | me | - | -

> Someone needs to call the waterworks today.
- Call the waterworks | - | 2026-03-09 | -

> The caretaker said he would open the hall at seven in the morning on the twentieth.
- Open the hall | the caretaker | 2026-03-20T07:00 | -

> Could you have a look at my draft, Ottoline?
- Have a look at my draft | Ottoline | - | -

> Let's plant the pears the week after next.
- Plant the pears | - | 2026-03-23 | -

> I'd like to learn the triangle by heart before the test next Thursday.
- Learn the triangle by heart before the test | me | 2026-03-19 | -

> If the delivery is late, call me. If not, everything is fine.

> They used to plant elms here. Nobody wants to do that again.

> Have you called the parents? I have, all of them.

> To make the mixture you take two parts of sand, add one part of compost, and mix it well.

> Ottoline is going to ask the council for the money.
- Ask the council for the money | Ottoline | - | -

> The volunteers will meet at the school at nine on Saturday.
- Meet at the school | the volunteers | 2026-03-14T09:00 | -

> I have to explain to the parents why we plant in March.
- Explain to the parents why we plant in March | me | - | -

> Phone the nursery and change the order to eighteen trees.
- Phone the nursery | me | - | -
- Change the order to eighteen trees | me | - | -

> Private: book the train to my parents, water the fern, answer Noor's letter by Sunday.
- Book the train to my parents | me | - | Home
- Water the fern | me | - | Home
- Answer Noor's letter | me | 2026-03-15 | Home

> What I still need for the exam is a new pen, so I have to go to the shop this afternoon.
- Go to the shop | me | 2026-03-09 | -

> I've got to return the books on the thirtieth.
- Return the books | me | 2026-03-30 | -

> I told Jun that I would print the list of names, and I said I'd bring tape.
- Print the list of names | me | - | -
- Bring tape | me | - | -

> Jun, would you count the chairs tomorrow morning?
- Count the chairs | Jun | 2026-03-10 | -

> To-do: order new labels for the trees.
- Order new labels for the trees | me | - | -

> I ought to look up the rules for the harbour wall before I talk to Ottoline at eleven.
- Look up the rules for the harbour wall before I talk to Ottoline | me | 2026-03-09T11:00 | -

> Wash the sample tins, dry them in the oven, and weigh them tomorrow at eight.
- Wash the sample tins | me | - | -
- Dry the sample tins in the oven | me | - | -
- Weigh the sample tins | me | 2026-03-10T08:00 | -

> We need two more ladders. And someone should fetch the tap key from the caretaker.
- Get two more ladders | - | - | -
- Fetch the tap key from the caretaker | - | - | -

> The form has to be back at the council by the first of April.
- Send back the form to the council | - | 2026-04-01 | -

> You don't need to bring spades, and nobody has to pay.

> I meant to write to him in January, and then I forgot about it.

> It would have been better to plant in November.

> Perhaps I should write down the names before I forget them.
- Write down the names | me | - | -

> On Wednesday at ten the engineer comes to the lock. I need to bring the plan.
- Bring the plan | me | 2026-03-11T10:00 | -

> The library closes at six. Take the books back before that.
- Take the books back | me | 2026-03-09T18:00 | -

> Can someone send Bram the photos? Oh, I'll send them tonight.
- Send Bram the photos | me | 2026-03-09 | -

> For my exam I need to draw the moisture curve from memory and revise the units.
- Draw the moisture curve from memory | me | - | Soil course
- Revise the units | me | - | Soil course

> Now the school orchard. The children have to choose the pears, and I have to measure the beds.
- Choose the pears | the children | - | School orchard
- Measure the beds | me | - | School orchard

> Ottoline, send the permit to Bram. Bram, mark the pits in white.
- Send the permit to Bram | Ottoline | - | -
- Mark the pits in white | Bram | - | -

> The meeting is on the second of April, so I want to finish the map a week before that.
- Finish the map | me | 2026-03-26 | -

> They still have my ladder. I need to fetch it on Saturday.
- Fetch the ladder | me | 2026-03-14 | -

> Clean the boots. Sweep the shed. The windows I did yesterday.
- Clean the boots | me | - | -
- Sweep the shed | me | - | -

> Seven and eleven and forty.

> No.

> Clay swells when it is wet. That is why the path lifts in winter.

> My task for this week is to find a sponsor.
- Find a sponsor | me | 2026-03-13 | -

> The idea is to invite the mayor on the third of May.
- Invite the mayor | - | 2026-05-03 | -

> I borrowed twenty from Jun. I must give it back tomorrow.
- Give twenty back to Jun | me | 2026-03-10 | -

> Find out when the tide is low, because we can only measure then.
- Find out when the tide is low | me | - | -

> The lecture is on Tuesday evening in the small hall.

> For next time, please bring a calculator and the printed table.
- Bring a calculator | me | - | -
- Bring the printed table | me | - | -

> Well, that is it for today. Good night.

> We have to decide on the colour of the benches before the end of April.
- Decide on the colour of the benches | - | 2026-04-30 | -

> Tell Jun to stop the order, and tell the school that we start at ten on Saturday.
- Tell Jun to stop the order | me | - | -
- Tell the school that we start at ten on Saturday | me | - | -

> Tamsin: Bram, could you write down what you told me about the roots?
> Bram: Sure, you'll have it by Friday.
> Tamsin: Great. I'll put it into the report next week.
- Write down what you told me about the roots | Bram | 2026-03-13 | -
- Put it into the report | me | 2026-03-16 | -

> Ottoline: What about the drainage?
> Tamsin: Bram says we need a pipe. I'll get a price for it.
> Ottoline: And I'll ask the waterworks where it may end.
- Get a price for a pipe | me | - | -
- Ask the waterworks where it may end | Ottoline | - | -

> Jun: Who tells the neighbours?
> Tamsin: I'll do it this evening.
> Jun: Then I'll make the coffee on Saturday.
- Tell the neighbours | me | 2026-03-09 | -
- Make the coffee | Jun | 2026-03-14 | -

> Tamsin: Have you measured the hall?
> Jun: I have. It is twelve by eight.
> Tamsin: And the chairs?
> Jun: I'll count them tomorrow.
- Count the chairs | Jun | 2026-03-10 | -

> Malmquist: You will all write one page about your garden. Hand it in next Tuesday.
> Tamsin: Can we send it by mail?
> Malmquist: Yes. And please bring a soil sample to the next lecture.
- Write one page about your garden | me | - | -
- Hand it in | me | 2026-03-17 | -
- Bring a soil sample to the next lecture | me | - | -

> Petra: We have to move your appointment, I'm afraid.
> Tamsin: No problem. I'll call you back after I have looked at my calendar.
> Petra: Please do that before five.
- Call Petra back | me | 2026-03-09T17:00 | -

> Ottoline: The road has to be closed on the twenty-first.
> Bram: Then somebody has to put up signs.
> Ottoline: I'll ask the depot. They will do it on the twentieth.
- Close the road | - | 2026-03-21 | -
- Ask the depot | Ottoline | - | -
- Put up signs | the depot | 2026-03-20 | -

> Tamsin: Should I order more mulch?
> Bram: No, that's enough. But you need to water twice a week.
> Tamsin: All right. I'll set an alarm for that.
- Water | me | - | - | FREQ=WEEKLY
- Set an alarm | me | - | -

> Jun: The posters have to be hung on Thursday at the latest.
> Tamsin: Can you do that?
> Jun: Yes, with my sister. You only have to give me the keys.
- Hang the posters | Jun | 2026-03-12 | -
- Give Jun the keys | me | - | -

> Bram: I sent you the report on Friday.
> Tamsin: I have read it. I'll send you my questions tomorrow, and then let's talk on the phone on Thursday.
- Send Bram my questions | me | 2026-03-10 | -
- Talk on the phone | - | 2026-03-12 | -
`;
