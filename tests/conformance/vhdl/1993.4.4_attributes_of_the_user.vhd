-- IEEE 1076-1993 clause 4.4: a value that an attribute specification gives
entity t is end;
architecture a of t is
  attribute weight : integer;
  signal s : bit;
  attribute weight of s : signal is 12;
begin
  process begin
    report integer'image(s'weight);
    wait;
  end process;
end;
--> note: 12
