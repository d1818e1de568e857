/**
 * Questions about the demo world, written before the method that answers them. `from` is the recording by its script in
 * `demo/world`, `phrases` are words of that script: the answer is right when it quotes a sentence in which one of them is
 * said. The first half was there to work with; the second half is for the figure alone.
 */
export type ExampleQuestion = { question: string; from: string; phrases: string[] };

export const QUESTIONS_DEV_SET: ExampleQuestion[] = [
  { question: 'How deep can we dig at the quay?', from: 'arborist', phrases: ['down to ninety centimetres'] },
  {
    question: 'What did Bram say about the roots?',
    from: 'arborist',
    phrases: ['roots have less than that', 'one metre of good soil'],
  },
  {
    question: 'Which lime did we choose?',
    from: 'arborist',
    phrases: ['agree on silver lime', 'decided on silver lime', 'Silver lime. It stands'],
  },
  {
    question: 'When does the application have to be handed in?',
    from: 'arborist',
    phrases: ['handed in by the fifteenth'],
  },
  { question: 'What have I promised Ottoline?', from: 'arborist', phrases: ['I will write the application'] },
  { question: 'When is Bram coming to look at the linden?', from: 'arborist', phrases: ['Thursday at half past nine'] },
  { question: 'Who pays for the trench?', from: 'arborist', phrases: ['town can pay for the trench'] },
  { question: 'Where is the gas pipe?', from: 'arborist', phrases: ['gas pipe is closer to the wall'] },
  { question: 'How much does the trench cost?', from: 'letter', phrases: ['eleven thousand four hundred'] },
  { question: 'How hot was the paving in July?', from: 'letter', phrases: ['forty six degrees'] },
  { question: 'Who pays for the trees?', from: 'letter', phrases: ['paid for by the planting fund'] },
  {
    question: 'How many people will come to the planting day?',
    from: 'planning-call',
    phrases: ['Eighteen have said yes'],
  },
  {
    question: 'What happens if it rains on planting day?',
    from: 'planning-call',
    phrases: ['If it rains a little', 'If it pours'],
  },
  { question: 'Who brings the spades?', from: 'planning-call', phrases: ['bring the spades'] },
  { question: 'How many plum trees do we have?', from: 'planning-call', phrases: ['two plums'] },
  { question: 'Which tap is broken?', from: 'planning-call', phrases: ['tap at the fence'] },
  { question: 'Which days did the dentist offer?', from: 'voice-message', phrases: ['offer you Thursday'] },
  {
    question: 'Until when must I call the dentist back?',
    from: 'voice-message',
    phrases: ['call us back before five'],
  },
  { question: 'What did mother say about her knee?', from: 'diary', phrases: ['knee is better'] },
  { question: 'When do I meet my mother?', from: 'diary', phrases: ['station on Saturday at eleven'] },
  {
    question: 'How fast does water enter a heavy clay?',
    from: 'lecture',
    phrases: ['heavy clay it can be one millimetre'],
  },
  {
    question: 'What is field capacity?',
    from: 'lecture',
    phrases: ['we call the field capacity', 'Field capacity is what stays', 'Field capacity is not a constant'],
  },
  { question: 'How thick must a crust be to slow the water?', from: 'lecture', phrases: ['crust of two millimetres'] },
  {
    question: 'What is the permanent wilting point?',
    from: 'lecture',
    phrases: ['permanent wilting point', 'fifteen hundred kilopascals', 'wilting point is where the plant'],
  },
  {
    question: 'What does salt do to plants?',
    from: 'lecture',
    phrases: ['Salt holds the water back', 'plant still cannot drink'],
  },
  {
    question: 'Why do street trees die of thirst?',
    from: 'lecture',
    phrases: ['street trees die of thirst', 'store is small'],
  },
  { question: 'How long can a young tree live without rain?', from: 'lecture', phrases: ['three weeks without rain'] },
  { question: 'What should we read for next time?', from: 'lecture', phrases: ['read chapter four'] },
  { question: 'What is clay?', from: 'revision', phrases: ['Clay is everything below'] },
  { question: 'What do the children draw for the sign?', from: 'wearable', phrases: ['children draw the leaves'] },
];

export const QUESTIONS_TEST_SET: ExampleQuestion[] = [
  { question: 'How many trees can Bram reserve?', from: 'arborist', phrases: ['reserve twelve trees'] },
  {
    question: 'What did Ottoline say about the water main?',
    from: 'arborist',
    phrases: ['water main lies at one metre'],
  },
  { question: 'When will the new drawing arrive?', from: 'arborist', phrases: ['new drawing by Wednesday'] },
  { question: 'What is wrong with the linden at the lock?', from: 'arborist', phrases: ['split in the bark'] },
  { question: 'Why silver lime?', from: 'arborist', phrases: ['stands the wind and the salt', 'nothing sticky drops'] },
  { question: 'What did we decide about the pits?', from: 'arborist', phrases: ['pits of ninety centimetres'] },
  { question: 'How far from the wall should a trunk stand?', from: 'arborist', phrases: ['two metres from the wall'] },
  { question: 'What should the pits keep away from?', from: 'arborist', phrases: ['two street lamps'] },
  {
    question: 'How many lime trees do we ask the council for?',
    from: 'letter',
    phrases: ['planting of twelve lime trees'],
  },
  { question: 'For how long has the harbour front been without shade?', from: 'letter', phrases: ['For eleven years'] },
  { question: 'When could I show the council the place?', from: 'letter', phrases: ['any morning before nine'] },
  { question: 'At what time do we start planting the orchard?', from: 'planning-call', phrases: ['start at ten'] },
  {
    question: 'By when must we be finished at the school?',
    from: 'planning-call',
    phrases: ["finish by three o'clock"],
  },
  { question: 'How many stakes are needed?', from: 'planning-call', phrases: ['fifteen stakes'] },
  { question: 'Whom do I call about the tank?', from: 'planning-call', phrases: ['fire station about the tank'] },
  {
    question: 'Who marks the places?',
    from: 'planning-call',
    phrases: ['mark the places', 'do that on Friday evening'],
  },
  { question: 'Who is sending the invitation?', from: 'planning-call', phrases: ['send the invitation tonight'] },
  { question: 'Why was my dentist appointment moved?', from: 'voice-message', phrases: ['away on Wednesday'] },
  { question: 'What should I bring to the dentist?', from: 'voice-message', phrases: ['small card'] },
  {
    question: 'What do I want to do differently in the evening?',
    from: 'diary',
    phrases: ['differently is the evening', 'messages until half past eight', 'phone stays in the kitchen'],
  },
  { question: 'What must I not forget before mother comes?', from: 'diary', phrases: ['change the sheets'] },
  { question: 'What is the infiltration rate of a loam?', from: 'lecture', phrases: ['For a loam it is about ten'] },
  {
    question: 'How do you measure infiltration with a tin?',
    from: 'lecture',
    phrases: ['tin without a lid', 'five centimetres into the ground', 'measure infiltration with things'],
  },
  {
    question: 'How much water does a loam hold?',
    from: 'lecture',
    phrases: ['loam holds about twenty five', 'loam holds twenty five', 'fifteen millimetres in every'],
  },
  {
    question: 'What happened to the birches?',
    from: 'lecture',
    phrases: ['school planted thirty birches', 'first drowned and then thirsty', 'birches were sick'],
  },
  {
    question: 'What should I do about stones in the soil?',
    from: 'lecture',
    phrases: ['take a fifth away', 'stone holds no water'],
  },
  { question: 'How can a crust be avoided?', from: 'lecture', phrases: ['Cover the ground', 'wood chips'] },
  { question: 'What will the quiz be about?', from: 'lecture', phrases: ['short quiz on the three numbers'] },
  {
    question: 'How do I test texture with my fingers?',
    from: 'revision',
    phrases: ['test it with your fingers', 'handful of moist soil', 'roll it to a thick sausage'],
  },
  {
    question: 'Where are the sacks for the orchard?',
    from: 'wearable',
    phrases: ['sacks for the orchard are still in the rain'],
  },
];

/** Nothing in the demo world answers these. */
export const UNANSWERABLE_DEV_SET: string[] = [
  'What is the price of a new bicycle?',
  'When does the concert begin?',
  'Who won the football match?',
  'How tall is the church tower?',
  'What did Bram say about his holiday?',
];
export const UNANSWERABLE_TEST_SET: string[] = [
  'Where did I park the car?',
  'What is the password of the wireless network?',
  'When is the rent due?',
  'What did Ottoline say about her daughter?',
  'How many pages has the novel?',
  'Which medicine did the doctor prescribe?',
  'What does the new printer cost?',
  'When do the swimming lessons start?',
  'What did the professor say about volcanoes?',
  'Who is the mayor?',
];

/** Written later, to choose the limits of refusing on more than five. */
export const MORE_UNANSWERABLE_DEV_SET: string[] = [
  'What did Jun say about the cinema?',
  'How much does the new phone cost?',
  'When is my train to the coast?',
  'Where are the car keys?',
  'Who painted the kitchen?',
  'What is the capital of the country?',
  'How many eggs are in the fridge?',
  'When does the library close?',
  'Why did the engineer resign?',
  'What did Petra say about the bill?',
  'How old is the professor?',
  'Which wine goes with fish?',
  'When did I last see the vet?',
  'How do I bake a cake?',
  'Who wrote the opera?',
  'What is the name of the dog?',
  'How long is the flight?',
  'Where does Jun live?',
  'What colour is the new sofa?',
  'Did Bram buy a boat?',
];
