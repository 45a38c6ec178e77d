export interface Article {
  readonly slug: string;
  readonly title: string;
  readonly standfirst: string;
  readonly sections: readonly { readonly heading: string; readonly paragraphs: readonly string[] }[];
}

export const ARTICLES: readonly Article[] = [
  {
    slug: 'aurora-over-the-fell',
    title: 'Aurora over the fell',
    standfirst:
      'Three nights in October when the north turned green, and what the all-sky camera kept of them.',
    sections: [
      {
        heading: 'A line on the magnetometer',
        paragraphs: [
          'It began, as it nearly always does, with a wobble on a screen nobody was looking at. The magnetometer in the lower hut sits in a wooden box the size of a suitcase and does one thing: it says which way north is, a thousand times a minute. At twenty past seven north moved. Not far, a third of a degree, but the needle of a compass would have shown it to anyone patient enough to stare.',
          'By eight the line on the screen had left its usual valley and was drawing mountains. Ines put the kettle on, because there is always time for that, and then she went round the building turning off every light we own.',
          'The aurora is slow to announce itself. First there is only a doubt: is that cloud, or the glow of the town beyond the pass? The doubt has no colour. Eyes that have been in a lit room see it as grey. Only after ten minutes in the dark does the grey begin to lean to green.',
        ],
      },
      {
        heading: 'What the colours say',
        paragraphs: [
          'Green is oxygen, a hundred kilometres up, giving back what it was given. Red is oxygen too, but higher, where there is so little air that an atom can wait almost two minutes before it lets its light go. The purple edge that shows along the bottom of a strong curtain is nitrogen, and it is quick: it has done its glowing before you have said the word.',
          'So a curtain is a kind of ruler. Where the red stops and the green begins is two hundred kilometres above the sheep. Where the green stops and the purple begins is a little under a hundred. Hold your fist at arm’s length against it and you are measuring the top of the sky.',
          'People ask what it sounds like. We have stood under a good many by now and have heard only the wind and each other. But nobody who has seen the folds run the length of the sky in two seconds would swear that it was silent.',
        ],
      },
      {
        heading: 'Where to stand',
        paragraphs: [
          'The car park by the lower gate is the worst place on the mountain, and it is where everybody stands. Walk for six minutes up the pony track to the second wall. The dome hides the town from there, the horizon is open from north-west to north-east, and the wall keeps the wind off your knees.',
          'Bring something to lie on. The best of an aurora is straight overhead, when the curtain is seen from below and becomes a crown, and no neck holds out for that.',
          'Turn your telephone to its darkest setting or, better, leave it in your pocket for the first half hour. A lit screen costs you twenty minutes of sight. The picture will still be there afterwards; the crown may not.',
        ],
      },
      {
        heading: 'The nights that follow',
        paragraphs: [
          'The sun turns once in about twenty-seven days as we see it. A patch that throws something at us in October will be looking our way again in November, if it lives that long. It is the nearest thing to a timetable this business has.',
          'We shall have the lower hut open on those evenings, with soup. The star map for the season shows where the magnetic north lies against the landmarks, so you know which way to face before there is anything to see.',
          'And if it is cloudy, which it may well be, come anyway. The magnetometer does not mind the cloud. You can watch north move.',
        ],
      },
    ],
  },
  {
    slug: 'finding-saturn',
    title: 'Finding Saturn without a map',
    standfirst: 'It does not twinkle, it does not hurry, and it is easier than you think.',
    sections: [
      {
        heading: 'The light that stands still',
        paragraphs: [
          'Stars twinkle because they are points, and a point is easily pushed about by moving air. A planet is a small disc, and when one edge of it dims the other does not. Look south an hour after dark this month and find the one light that stands quite still. That is it. You have found Saturn.',
          'To the naked eye it is the colour of straw. Through ordinary field glasses it is still a point, though an oddly long one, which is just how it was first described four centuries ago by people with glasses not much better than yours.',
          'At forty times it has ears. At eighty it has a ring. We have shown it to several thousand people and the first word is nearly always the same, and it is not one that can be printed in a family journal.',
        ],
      },
      {
        heading: 'How the ring tilts',
        paragraphs: [
          'The ring is flat, thinner for its width than any sheet of paper, and it keeps its tilt as the planet goes round. So over twenty-nine years we see it from above, then from the edge, then from below, and from the edge again. When it is edge-on it all but disappears.',
          'This winter it is opening again. Each month there is a little more of it to see, and by spring the dark gap that divides it will be within reach of the club’s smallest telescope.',
          'If you want to see it change, draw it. A circle the size of a coin and one line across are enough. Draw it again in eight weeks and lay one on the other.',
        ],
      },
      {
        heading: 'Its company',
        paragraphs: [
          'The brightest of its moons is visible in any telescope, four ring-lengths out, and takes sixteen days to go round. Note on which side it stands tonight. Next week it will have crossed over.',
          'Three more can be had on a steady night with the twelve-inch. They are very small lights beside a large one, and it helps to hide the planet behind the edge of the field and look at what is left.',
          'On the First light tour we always end with Saturn, whatever was planned, because nobody has ever complained.',
        ],
      },
    ],
  },
  {
    slug: 'dark-adaptation',
    title: 'Twenty minutes in the dark',
    standfirst: 'What your eyes do when you let them, and how one lamp undoes it all.',
    sections: [
      {
        heading: 'Two kinds of seeing',
        paragraphs: [
          'There are two eyes in each of your eyes. One works by day, sees colour and detail, and is packed into the middle of your sight. The other works by night, sees neither, and lies all round the first. Changing from one to the other takes about twenty minutes, and there is no hurrying it.',
          'In the first five minutes the pupil opens and you see three times as much as you did. That is the small part. In the fifteen after that, the night eye makes again the pigment that daylight has bleached out of it, and by the end you see some tens of thousands of times as much.',
          'A single look at a lit screen bleaches it again. The pupil closes in a second; the pigment is gone in two. Then the twenty minutes start from the beginning.',
        ],
      },
      {
        heading: 'Looking beside things',
        paragraphs: [
          'Since the night eye lies all round the middle, the middle is blind in the dark. Look straight at a faint star and it goes out. Look a finger’s breadth to its side and it comes back, brighter than you would have believed.',
          'It is a hard habit to learn, because it goes against everything else you do with your eyes. Practise on the Pleiades: count them straight on, then count them looking aside. The second number is usually larger by three.',
          'The trick works best to the outside, towards your ear. On the nose side there is a patch where the nerve leaves and nothing is seen at all.',
        ],
      },
      {
        heading: 'Red light, and how little of it',
        paragraphs: [
          'Red light spares the night eye, which is why our lamps are red. But it spares it only when it is dim. A bright red lamp is still a lamp. If you can see its colour on the grass three steps away it is too strong.',
          'We tape over everything: the charger’s lamp, the camera’s lamp, the little green one on the heater that nobody had noticed in eleven years until a boy of seven asked what it was for.',
          'So when we ask you at the gate to put the telephone away, it is not fussiness. It is the largest single improvement you can make to any telescope on this mountain, and it costs nothing.',
        ],
      },
    ],
  },
  {
    slug: 'meteor-notebook',
    title: 'A meteor notebook',
    standfirst: 'How to count shooting stars so that the count is worth something afterwards.',
    sections: [
      {
        heading: 'A chair, a pencil, an hour',
        paragraphs: [
          'Counting meteors is the oldest useful thing that can be done with no instrument at all. You need a chair that tips back, a pencil on a string, and an hour in which you do nothing else. Look halfway up the sky and a little to the side of where they come from.',
          'Write down the minute you began and the minute you stopped. Write how much of the sky was covered by cloud. Write the faintest star you can see in the tail of the Little Bear. Without these three a count is only a story; with them it is a measurement.',
          'Make a stroke for each one. A dot above it if it was brighter than any star, a tail if it left a trail. Do not look down to write: that is what the string is for.',
        ],
      },
      {
        heading: 'Whose is it',
        paragraphs: [
          'Meteors of a shower come from one point, as rails seem to meet far off. Draw the path backwards in your mind. If it leads to the point, it belongs; if not, it is one of the strays that come every night of the year, six or eight in an hour.',
          'In the middle of a good shower the strays hardly matter. At its edges they are most of what you see, and it is there that a careful notebook is worth more than a camera.',
          'Slow ones, fast ones: that is a clue as well. The December shower is slow and yellow, and its stones are thought to come from something nearer to a rock than to a comet.',
        ],
      },
      {
        heading: 'Sending it in',
        paragraphs: [
          'Bring the page to the desk, or send a picture of it. We copy the figures into the long table that has been kept here since the hut was built, and once a year it goes to the people who add up such tables.',
          'Nobody’s hour is too poor. A cloudy count with the cloud written down is as good as a clear one. A count of nought is a count.',
          'The long table is in the members’ reading room. The oldest line in it is in pencil, and reads: cold, forty-one, one of them green.',
        ],
      },
    ],
  },
];
