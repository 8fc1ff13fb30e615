-- IEEE 1076-1993 clause 4.3.1.2: of their subtype
entity t is end;
architecture a of t is
  subtype middle is integer range 3 to 8;
  type state is (idle, run);
  signal m : middle;
  signal s : state;
  signal b : boolean;
begin
  process begin
    report integer'image(m) & " " & state'image(s) & " " & boolean'image(b);
    wait;
  end process;
end;
--> note: 3 idle false
