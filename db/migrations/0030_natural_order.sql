-- Up Migration

-- Numbers in words are sorted by what they say: step 2 before step 10.
CREATE COLLATION natural_order (provider = icu, locale = 'und-u-kn-true');

-- Down Migration
DROP COLLATION natural_order;
