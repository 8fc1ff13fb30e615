// IEEE 1364-2005 clause 10.2.2, 12.5: tasks and functions along a path, with and without arguments; 5.1.14: repetitions of 0 times; 3.5.1: a size out of a macro
`define WIDTH 8
module part; task show; $display("%m"); endtask task twice(input integer n); $display("%0d", 2 * n); endtask
  function integer more(input integer n); more = n + 1; endfunction endmodule
module box; part a(); endmodule
module extended #(parameter N = 8, W = 8)(input [N-1:0] a, output [W-1:0] y); assign y = {{(W-N){a[N-1]}}, a}; endmodule
module t;
  box one(); genvar g; generate for (g = 0; g < 2; g = g + 1) begin : s part u(); end endgenerate part row[1:0]();
  wire [7:0] y, z; extended #(8, 8) u(8'h85, y); extended #(4, 8) v(4'h9, z); reg [`WIDTH-1:0] q;
  initial begin
    one.a.show; t.one.a.show; s[1].u.show; s[0].u.twice(4); row[1].show;
    $display("%0d %0d", s[1].u.more(2), one.a.more(3));
    #1 $display("%h %h %b", y, z, {{0{1'b1}}, 2'b10, {0{y}}});
    q = `WIDTH'hFF; $display("%h %h", q, `WIDTH 'd5); if (q == {8{1'b1}}) one.a.show; else s[0].u.show;
    $display("%0d", {300{2'b01}} == {600{1'b0}});
  end
endmodule
//> t.one.a.show
//> t.one.a.show
//> t.s[1].u.show
//> 8
//> t.row[1].show
//> 3 4
//> 85 f9 10
//> ff 05
//> t.one.a.show
//> 0
