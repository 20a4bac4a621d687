-- Changes close together, which the page sends under one word, are one step of undo.
alter table changes add column step text;
