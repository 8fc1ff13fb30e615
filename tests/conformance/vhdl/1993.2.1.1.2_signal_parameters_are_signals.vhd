-- IEEE 1076-1993 clause 2.1.1.2: a variable is none
entity t is end;
architecture a of t is
  procedure p(signal s : in bit) is
  begin
    null;
  end;
begin
  process
    variable v : bit;
  begin
    p(v); --! not-signal
    wait;
  end process;
end;
