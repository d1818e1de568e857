/** Half of the memos and dialogues with their right to-dos: the rules are made with these. See `todoExamples.ts`. */
export const TODO_MEMOS_DEV_SET = `
> So, um, first thing, call the nursery and ask whether they have twelve small-leaved limes left.
- Call the nursery | me | - | -
- Ask whether they have twelve small-leaved limes left | me | - | -

> I need to, I need to send Ottoline the cable plan before noon, and then I have to walk the quay with Bram at half past two.
- Send Ottoline the cable plan | me | 2026-03-09T12:00 | -
- Walk the quay with Bram | me | 2026-03-09T14:30 | Quayside limes

> Plan, rehearse, record and upload the clip by Friday.
- Plan the clip | me | 2026-03-13 | -
- Rehearse the clip | me | 2026-03-13 | -
- Record the clip | me | 2026-03-13 | -
- Upload the clip | me | 2026-03-13 | -

> For the orchard, order stakes, ties and mulch. Next project, home. Pay the water bill by Thursday and, you know, find the spare key.
- Order stakes, ties and mulch | me | - | School orchard
- Pay the water bill | me | 2026-03-12 | Home
- Find the spare key | me | - | Home

> I already sent the letter to the council, but I still have to print the map for Wednesday.
- Print the map for Wednesday | me | 2026-03-11 | -

> The deposit has to be paid by the twelfth of May, and the essay is due on Friday.
- Pay the deposit | - | 2026-05-12 | -
- Finish the essay | me | 2026-03-13 | -

> Remind me to water the saplings every Tuesday and Friday.
- Water the saplings | me | 2026-03-10 | - | FREQ=WEEKLY;BYDAY=TU,FR

> Every morning I have to check the pump, at seven.
- Check the pump | me | 2026-03-10T07:00 | - | FREQ=DAILY

> On the first of every month, pay the rent for the shed.
- Pay the rent for the shed | me | 2026-04-01 | - | FREQ=MONTHLY;BYMONTHDAY=1

> Shopping list: bread, milk, apples and a light bulb for the hall.
- Buy bread | me | - | -
- Buy milk | me | - | -
- Buy apples | me | - | -
- Buy a light bulb for the hall | me | - | -

> Action point one, Jun prints twenty flyers by Wednesday. Action point two, I book the hall. Action point three, Bram checks the bark.
- Print twenty flyers | Jun | 2026-03-11 | -
- Book the hall | me | - | -
- Check the bark | Bram | - | -

> Call the digger firm, hire a van, book the bus and buy gloves. Actually, strike the bus from the list, we walk.
- Call the digger firm | me | - | -
- Hire a van | me | - | -
- Buy gloves | me | - | -

> Don't forget to bring the auger, and don't forget the gloves.
- Bring the auger | me | - | -
- Remember the gloves | me | - | -

> Somebody has to pump out pit three before the weekend.
- Pump out pit three | - | 2026-03-14 | -

> Ottoline said she would send the drawing by Wednesday, so I'll check it on Thursday morning.
- Send the drawing | Ottoline | 2026-03-11 | -
- Check the drawing | me | 2026-03-12 | -

> Can you bring the ladder tomorrow, Jun?
- Bring the ladder | Jun | 2026-03-10 | -

> Let's meet at the lock in two weeks.
- Meet at the lock | - | 2026-03-23 | -

> I want to read chapter five before the exam.
- Read chapter five before the exam | me | - | Soil course

> If it rains tomorrow, we dig on Wednesday instead. We were going to dig today, but the pump broke.

> We could have ordered them last year. I wish I had asked Bram.

> Did you send the letter? Yes, I sent it yesterday.

> First you take a tin without a lid, press it into the ground, and pour in the water. Then you note the time until it is gone.

> The engineer is going to move the lamp cable next week.
- Move the lamp cable | the engineer | 2026-03-16 | -

> Professor Malmquist will put the slides online tonight.
- Put the slides online | Professor Malmquist | 2026-03-09 | -

> I have to tell Ottoline that the cable lies shallower than on her drawing.
- Tell Ottoline that the cable lies shallower than on her drawing | me | - | -

> Email Petra and move the appointment to the twentieth at quarter to five.
- Email Petra | me | - | -
- Move the appointment to the twentieth at quarter to five | me | 2026-03-20T16:45 | -

> Personal: call my sister tonight, get a birthday card, wrap the book.
- Call my sister | me | 2026-03-09 | Home
- Get a birthday card | me | - | Home
- Wrap the book | me | - | Home

> The three things for the quay are measure pit six, photograph the split bark, and write the count into the table before the meeting on Tuesday.
- Measure pit six | me | - | Quayside limes
- Photograph the split bark | me | - | Quayside limes
- Write the count into the table before the meeting | me | 2026-03-10 | Quayside limes

> I must hand in exercise four by the end of the month.
- Hand in exercise four | me | 2026-03-31 | -

> We agreed to share the cost of the digger, and I promised to ask the harbour office.
- Share the cost of the digger | - | - | -
- Ask the harbour office | me | - | -

> Would you please water the apples while I'm away, Jun?
- Water the apples while I'm away | Jun | - | School orchard

> Note to self: renew the library card.
- Renew the library card | me | - | -

> I'd better charge the recorder before the lecture at six.
- Charge the recorder before the lecture | me | 2026-03-09T18:00 | -

> Get the blue folder from the office, take it to Ottoline, and have her sign the form by noon on Friday.
- Get the blue folder from the office | me | - | -
- Take the blue folder to Ottoline | me | - | -
- Have Ottoline sign the form | me | 2026-03-13T12:00 | -

> We need gloves for twenty children. And somebody should bring a first aid kit.
- Get gloves for twenty children | - | - | -
- Bring a first aid kit | - | - | -

> The invitation has to go out by Monday in two weeks.
- Send out the invitation | - | 2026-03-23 | -

> There is no need to water them in March, and we don't have to fence the orchard this year.

> I was supposed to call the council last week, and I finally did.

> It would be nice to plant a walnut one day.

> Maybe I should ask the school for a tap key.
- Ask the school for a tap key | me | - | -

> Tomorrow at nine, Bram is coming. I have to unlock the gate for him.
- Unlock the gate for Bram | me | 2026-03-10T09:00 | -

> In ten days the contract ends. Cancel it in time.
- Cancel the contract in time | me | 2026-03-19 | -

> Text Jun the address, will you? No, wait, I'll do it myself after lunch.
- Text Jun the address | me | - | -

> For the course I should repeat the chapter on capillary rise, then do questions one to nine.
- Repeat the chapter on capillary rise | me | - | Soil course
- Do questions one to nine | me | - | Soil course

> Okay, the trench. We have to fill it with structural soil, and the town has to close the road for a day.
- Fill the trench with structural soil | - | - | Quayside limes
- Close the road for a day | the town | - | Quayside limes

> Bram, measure the trunk again please. Jun, count the stakes.
- Measure the trunk | Bram | - | -
- Count the stakes | Jun | - | -

> I'm meeting Ottoline on the fourteenth of May, so I need to prepare the table by then.
- Prepare the table | me | 2026-05-14 | -

> He never returns the drill. I have to get it back this week.
- Get the drill back | me | 2026-03-13 | -

> Buy stamps. Post the letter. Done with the bill already.
- Buy stamps | me | - | -
- Post the letter | me | - | -

> Twelve, four, nineteen, seven.

> Yes.

> The soil holds water like a sponge. When the pores are full, the rest drains away.

> My next step is to write to the caretaker.
- Write to the caretaker | me | - | -

> The plan is to dig on the twenty-first and plant on the twenty-second.
- Dig | - | 2026-03-21 | -
- Plant | - | 2026-03-22 | -

> Please remember that I owe Bram forty for the ties. I have to pay him back before the weekend.
- Pay Bram back | me | 2026-03-14 | -

> Check with the caretaker whether the tap works, otherwise we need the water cart.
- Check with the caretaker whether the tap works | me | - | -

> I have an appointment with the dentist on Thursday at ten past four.

> You have to read the first two chapters by next Monday, and there will be a short test.
- Read the first two chapters | me | 2026-03-16 | -

> Let me think. No, nothing for today.

> We should move both pits one metre towards the water.
- Move both pits one metre towards the water | - | - | -

> Ask Jun to bring the wheelbarrow, and ask the school for the key to the shed by Thursday.
- Ask Jun to bring the wheelbarrow | me | - | -
- Ask the school for the key to the shed | me | 2026-03-12 | -

> Tamsin: Ottoline, can you send me the new drawing by Thursday?
> Ottoline: Yes, I'll send it on Wednesday.
> Tamsin: Good. Then I'll check the pits on Friday.
- Send me the new drawing | Ottoline | 2026-03-11 | -
- Check the pits | me | 2026-03-13 | -

> Tamsin: So what do we do about the split bark?
> Bram: I would wait. I'll look at it again in two weeks and take a sample.
> Tamsin: Fine. I'll fence the tree off until then.
- Look at the split bark | Bram | 2026-03-23 | -
- Take a sample | Bram | 2026-03-23 | -
- Fence the tree off | me | - | -

> Tamsin: Who brings the gloves?
> Jun: I can do that. I also still have to print the flyers.
> Tamsin: And please put them up at the school by Wednesday.
- Bring the gloves | Jun | - | -
- Print the flyers | Jun | - | -
- Put the flyers up at the school | Jun | 2026-03-11 | -

> Tamsin: Did you order the ties?
> Jun: Yes, they came yesterday.
> Tamsin: And the stakes?
> Jun: Not yet. I'll order them today.
- Order the stakes | Jun | 2026-03-09 | -

> Malmquist: Next week we turn to drainage. Please read chapter six until then.
> Tamsin: Do we have to hand in exercise three?
> Malmquist: Yes, by Friday at noon.
- Read chapter six | me | 2026-03-16 | -
- Hand in exercise three | me | 2026-03-13T12:00 | -

> Petra: The dentist can see you on the nineteenth at half past nine.
> Tamsin: That is fine. Should I bring anything?
> Petra: Bring your card, please. And if you cannot come, call us a day before.
- Bring your card | me | - | -

> Ottoline: The lamp cable has to be moved first. I can order that this week.
> Bram: And the root barrier?
> Ottoline: That is yours. Could you measure it, Bram?
> Bram: I will do it tomorrow morning.
- Move the lamp cable | - | - | -
- Order that | Ottoline | 2026-03-13 | -
- Measure the root barrier | Bram | 2026-03-10 | -

> Tamsin: I'll write to the parents tonight.
> Jun: Don't, I've already done it.
> Tamsin: Oh, thank you. Then I'll just answer the questions.
- Answer the questions | me | - | -

> Jun: Somebody has to unlock the school gate on Saturday.
> Tamsin: The caretaker will do that.
> Jun: And who brings the cake?
> Tamsin: Not me this time.
- Unlock the school gate | the caretaker | 2026-03-14 | -

> Bram: My invoice is still open.
> Tamsin: Sorry, I'll pay it today. Can you send it to me again?
> Bram: Of course.
- Pay the invoice | me | 2026-03-09 | -
- Send the invoice to me | Bram | - | -
`;
