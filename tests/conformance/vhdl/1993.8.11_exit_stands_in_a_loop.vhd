-- IEEE 1076-1993 clause 8.11: not outside of one
entity t is end;
architecture a of t is
begin
  process begin
    exit; --! misplaced
    wait;
  end process;
end;
