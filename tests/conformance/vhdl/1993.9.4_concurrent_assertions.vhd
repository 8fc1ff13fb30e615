-- IEEE 1076-1993 clause 9.4: are looked at whenever a signal in them changes
entity t is end;
architecture a of t is
  signal s : integer := 0;
begin
  s <= 9 after 1 ns;
  assert s < 5 report "too large" severity note;
end;
--> note: too large
