-- IEEE 1076-1993 clause 4.2: when a value is assigned
entity t is end;
architecture a of t is
  subtype digit is integer range 0 to 9;
begin
  process
    variable i : integer := 12;
    variable d : digit;
  begin
    d := i; --! outside
    wait;
  end process;
end;
