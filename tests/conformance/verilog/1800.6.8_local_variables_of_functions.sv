// IEEE 1800-2017 clause 6.8: a variable of a static function keeps its value, an automatic one begins again
module t;
  function int counted(); static int n = 0; n++; return n; endfunction
  function automatic int fresh(); int n = 0; n++; return n; endfunction
  function automatic int kept(); static int n = 10; n++; return n; endfunction
  initial begin
    void'(counted()); $display("%0d", counted());
    void'(fresh()); $display("%0d", fresh());
    void'(kept()); $display("%0d", kept());
  end
endmodule
//> 2
//> 1
//> 12
