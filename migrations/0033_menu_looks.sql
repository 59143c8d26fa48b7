-- Up Migration
-- How an entry of the menu is shown: as a link, a button, an icon, or what it leads to opened in place.
ALTER TABLE menu_entries ADD COLUMN look text NOT NULL DEFAULT 'link' CHECK (look IN ('link', 'button', 'icon', 'panel'));
