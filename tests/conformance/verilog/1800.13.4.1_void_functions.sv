// IEEE 1800-2017 clause 13.4.1: a void function is a statement, and any other one with void'()
module t;
  int seen = 0;
  function void note(int n);
    seen = seen + n;
  endfunction
  function int noted(int n);
    seen = seen + n;
    return seen;
  endfunction
  initial begin
    note(3);
    void'(noted(4));
    $display("%0d", seen);
    noted(1); //! function-as-task
  end
endmodule
