-- IEEE 1076-1993 clause 9.2: a variable is none
entity t is end;
architecture a of t is
  constant c : bit := '0';
begin
  process (c) begin --! not-signal
    null;
  end process;
end;
