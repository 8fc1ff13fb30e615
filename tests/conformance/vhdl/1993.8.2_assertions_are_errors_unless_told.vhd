-- IEEE 1076-1993 clause 8.2: without a severity, and without a text of their own (exit 1)
entity t is end;
architecture a of t is
begin
  process begin
    assert false;
    wait;
  end process;
end;
--> error: Assertion violation.
