// IEEE 1800-2017 clause 9.2.2.2: in `always_comb` the last assignment holds
module t;
  logic [3:0] r; logic [1:0] g; logic any;
  always_comb begin
    g = 0; any = 0;
    for (int i = 0; i < 4; i++) if (r[i]) begin g = 2'(i); any = 1; end
  end
  logic [1:0] f; 
  always_comb begin
    f = 0;
    for (int i = 0; i < 4; i++) if (r[i]) begin f = 2'(i); break; end
  end
  initial begin
    r = 4'b0110; #1 $display("%0d %0d %b", g, f, any);
    r = 4'b1001; #1 $display("%0d %0d %b", g, f, any);
    r = 0; #1 $display("%0d %0d %b", g, f, any);
  end
endmodule
//> 2 1 1
//> 3 0 1
//> 0 0 0
