-- What the player says about single chords of a chart, which wins over the analysis: [{bar, beat, job, home, split}].
alter table charts add column overrides jsonb;
