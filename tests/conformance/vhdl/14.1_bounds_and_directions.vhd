-- IEEE 1076-1993 clause 14.1: of arrays, types and subtypes
entity t is end;
architecture r of t is
  signal v : bit_vector(3 downto 1);
  subtype up is integer range 2 to 5;
  subtype down is integer range 9 downto 7;
  type level is (idle, some, full);
begin
  process begin
    report integer'image(v'left) & integer'image(v'right) & integer'image(v'low) & integer'image(v'high) & integer'image(v'length);
    report boolean'image(v'ascending) & boolean'image(up'ascending) & integer'image(up'left) & integer'image(down'left) & integer'image(down'low);
    report level'image(level'left) & level'image(level'succ(idle)) & integer'image(level'pos(full)) & level'image(level'val(1)) & level'image(level'rightof(idle));
    wait;
  end process;
end;
--> note: 31133
--> note: falsetrue297
--> note: idlesome2somesome
