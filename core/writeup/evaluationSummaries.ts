/**
 * Summaries of the demo world's recordings, written by hand before any method was measured on them, by the id of the
 * recording; three sentences at most, as "In short" is asked for.
 */
export const REFERENCE_SUMMARIES: Readonly<Record<string, string>> = {
  arborist:
    'Tamsin, Bram and Ottoline decided on twelve silver limes in pits of ninety centimetres, and the trench goes into the town plan. Tamsin writes the application, which has to be handed in by the fifteenth, and Ottoline sends the new drawing of the gas pipe by Wednesday. Bram calls the nursery and looks at the split bark of the linden on Thursday at half past nine.',
  'planning-call':
    'Tamsin and Jun plan the planting day for the school orchard: eighteen people, fifteen trees, from ten to three o’clock. Jun brings the spades, marks the places on Friday evening and sends the invitation, Tamsin orders the stakes and asks the school for the list of allergies. If it pours, everything moves to the Saturday after, and a water tank is rented because the tap is broken.',
  lecture:
    'Infiltration is how fast water gets into the soil, fast at first and slow later, and field capacity is what the soil holds against gravity after two or three days. The plant can use the available water, which lies between field capacity and the wilting point. The best soil is not the one that holds the most water but the one that gives the most back.',
  diary:
    'The day was long but good: on the quay I believed for the first time that the trees will really stand there. Mother wants to come for the planting day, and I promised to meet her at the station on Saturday at eleven. Tomorrow the phone stays in the kitchen in the evening.',
  'quay-walk':
    'Of the six pits along the quay two are good, one is wet, two must be moved towards the water and one is a question. The lamp cable at pits four and five is shallower than on Ottoline’s drawing. The bark of the linden by the lock is split.',
  letter:
    'We ask the council to approve the planting of twelve lime trees along the quay this autumn. The harbour front has had no shade for eleven years. The planting fund pays for the trees and the town for the trench, which costs eleven thousand four hundred and replaces a drain that has to be renewed anyway.',
  revision:
    'Clay, silt and sand are told apart by the size of their grains and by feel. I need to look up the triangle diagram and draw it three times from memory. I have to hand in the exercise on water by Sunday.',
  'voice-message':
    'The doctor is away on Wednesday, so the dentist’s appointment has to be moved. Please call back before five today and bring the small card.',
};
