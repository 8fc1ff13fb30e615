-- IEEE 1076-2008 clause 10.5.4: with and select among statements
entity t is end;
architecture a of t is
begin
  process
    variable i : integer := 2;
    variable c : character;
  begin
    with i select c := 'a' when 1, 'b' when 2, 'c' when others;
    report character'image(c);
    wait;
  end process;
end;
--> note: 'b'
