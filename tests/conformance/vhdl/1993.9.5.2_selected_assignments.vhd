-- IEEE 1076-1993 clause 9.5.2: by the value of one expression
entity t is end;
architecture a of t is
  signal s : integer range 0 to 3 := 0;
  signal d : character;
begin
  s <= 2 after 1 ns;
  with s select d <= 'a' when 0, 'b' when 1 | 2, 'c' when others;
  process begin
    wait for 2 ns;
    report character'image(d);
    wait;
  end process;
end;
--> note: 'b'
