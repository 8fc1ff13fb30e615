-- IEEE 1076-1993 clause 4.3.1.2: only variables
entity t is end;
architecture a of t is
begin
  process
    signal s : bit; --! misplaced
  begin
    wait;
  end process;
end;
