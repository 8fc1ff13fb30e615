-- IEEE 1076-1993 clause 4.3.1.1: once and for all
entity t is end;
architecture a of t is
  constant c : integer := 1;
begin
  process begin
    c := 2; --! constant
    wait;
  end process;
end;
