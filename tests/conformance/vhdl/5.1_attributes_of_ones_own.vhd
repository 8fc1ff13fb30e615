-- IEEE 1076-1993 clause 5.1, 6.6: an attribute is declared, given and read
entity t is end;
architecture r of t is
  attribute pins : string;
  attribute weight : integer;
  signal s : bit;
  attribute pins of s : signal is "A7";
  attribute weight of s : signal is 3;
begin
  process begin
    report s'pins & integer'image(s'weight + 1);
    wait;
  end process;
end;
--> note: A74
